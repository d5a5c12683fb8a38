import { QueryClientProvider } from '@tanstack/react-query';
import { setNonce } from 'get-nonce';
import { Tooltip } from 'radix-ui';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { queryClient } from './api/queries';
import { BuildsPage } from './features/builds/BuildsPage';
import { ComparePage } from './features/drivers/ComparePage';
import { DriversPage } from './features/drivers/DriversPage';
import { FindPage } from './features/find/FindPage';
import { JobsPage } from './features/jobs/JobsPage';
import { NotFound } from './features/shell/NotFound';
import { applyTheme } from './features/shell/theme';
import { WorkbenchPage } from './features/workbench/WorkbenchPage';
import './styles.css';

// Dialogs lock scrolling with a style element, which the content security policy lets in by this.
setNonce(document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? '');
applyTheme();

const router = createBrowserRouter([
  { path: '/', element: <BuildsPage /> },
  { path: '/drivers', element: <DriversPage /> },
  { path: '/drivers/compare', element: <ComparePage /> },
  { path: '/jobs', element: <JobsPage /> },
  { path: '/builds/:id/find', element: <FindPage /> },
  { path: '/builds/:id/:stage?', element: <WorkbenchPage /> },
  { path: '*', element: <NotFound /> },
]);

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <Tooltip.Provider delayDuration={250}>
          <RouterProvider router={router} />
        </Tooltip.Provider>
      </QueryClientProvider>
    </StrictMode>,
  );
}
