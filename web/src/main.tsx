import { QueryClientProvider } from '@tanstack/react-query';
import { setNonce } from 'get-nonce';
import { Tooltip } from 'radix-ui';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { queryClient } from './api/queries';
import { BuildsPage } from './features/builds/BuildsPage';
import { Broken } from './features/shell/Broken';
import { NotFound } from './features/shell/NotFound';
import { StagesContext } from './features/shell/stages';
import { applyTheme } from './features/shell/theme';
import { claimTab } from './model/tab';
import { STAGES } from './stages';
import { ToastRegion } from './ui/ToastRegion';
import './styles.css';

// Dialogs lock scrolling with a style element, which the content security policy lets in by this.
setNonce(document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? '');
applyTheme();

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: '/', element: <BuildsPage /> },
      {
        path: '/drivers',
        lazy: async () => ({ Component: (await import('./features/drivers/DriversPage')).DriversPage }),
      },
      {
        path: '/drivers/compare',
        lazy: async () => ({ Component: (await import('./features/drivers/ComparePage')).ComparePage }),
      },
      {
        path: '/jobs',
        lazy: async () => ({ Component: (await import('./features/jobs/JobsPage')).JobsPage }),
      },
      {
        path: '/builds/:id/find',
        lazy: async () => ({ Component: (await import('./features/find/FindPage')).FindPage }),
      },
      {
        path: '/builds/:id/:path?',
        lazy: async () => ({
          Component: (await import('./features/workbench/WorkbenchPage')).WorkbenchPage,
        }),
      },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

const root = document.getElementById('root');
if (root) {
  // What was not sent yet belongs to a tab.
  await claimTab();
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <StagesContext value={STAGES}>
          <Tooltip.Provider delayDuration={250}>
            <RouterProvider router={router} />
            <ToastRegion />
          </Tooltip.Provider>
        </StagesContext>
      </QueryClientProvider>
    </StrictMode>,
  );
}
