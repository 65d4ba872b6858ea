import { render, screen } from '@testing-library/react';
import { RouterProvider } from 'react-router';
import { router } from './routes.js';

it.each(['/nowhere', '/exchanges/x/nowhere/y'])('an address that leads nowhere says so: %s', async (address) => {
  await router.navigate(address);
  render(<RouterProvider router={router} />);
  expect(await screen.findByText('There is no page at this address.')).not.toBeNull();
  expect(screen.queryByText('This page could not be shown.')).toBeNull();
});
