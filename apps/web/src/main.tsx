import { language } from '@salt-circle/core';
import { StrictMode, useSyncExternalStore } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { router } from './routes.js';
import { isSigningOut, onSigningOut } from './app/session/leave.js';
import { SigningOutPage } from './app/session/SigningOutPage.js';
import { store } from './app/store.js';
import { TooltipProvider } from './kit/index.js';
import './styles.css';

/** Nothing is shown while somebody is signing out. */
function Application() {
  const leaving = useSyncExternalStore(onSigningOut, isSigningOut);
  return leaving ? <SigningOutPage /> : <RouterProvider router={router} />;
}

const root = document.getElementById('root');
document.documentElement.lang = language();
if (root === null) throw new Error('index.html has no #root');
createRoot(root).render(
  <StrictMode>
    <Provider store={store}>
      <TooltipProvider delayDuration={300}>
        <Application />
      </TooltipProvider>
    </Provider>
  </StrictMode>,
);
