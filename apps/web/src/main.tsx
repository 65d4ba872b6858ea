import { language } from '@salt-circle/core';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { router } from './routes.js';
import { isSigningOut } from './app/session/leave.js';
import { SigningOutPage } from './app/session/SigningOutPage.js';
import { store } from './app/store.js';
import { TooltipProvider } from './kit/index.js';
import './styles.css';

const root = document.getElementById('root');
document.documentElement.lang = language();
if (root === null) throw new Error('index.html has no #root');
createRoot(root).render(
  <StrictMode>
    <Provider store={store}>
      <TooltipProvider delayDuration={300}>
        {isSigningOut() ? <SigningOutPage /> : <RouterProvider router={router} />}
      </TooltipProvider>
    </Provider>
  </StrictMode>,
);
