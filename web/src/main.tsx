import { QueryClientProvider } from '@tanstack/react-query';
import { setNonce } from 'get-nonce';
import { StrictMode, Suspense, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Route, Routes } from 'react-router';
import { queryClient } from './api/queries/shared';
import { Broken } from './features/shell/Broken';
import { NotFound } from './features/shell/NotFound';
import { StagesContext } from './features/shell/stages';
import { applyTheme } from './features/shell/theme';
import { claimTab } from './model/tab';
import { toasts } from './model/toasts';
import { STAGES } from './stages';
import { lazily } from './ui/lazily';
import { useObserved } from './ui/observed';
import './styles.css';

// Dialogs lock scrolling with a style element, which the content security policy lets in by this.
setNonce(document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content ?? '');
applyTheme();

const ToastRegion = lazily(() => import('./ui/ToastRegion').then((part) => part.ToastRegion));
const DriversPage = lazily(() => import('./features/drivers/DriversPage').then((page) => page.DriversPage));
const ComparePage = lazily(() => import('./features/drivers/ComparePage').then((page) => page.ComparePage));
const JobsPage = lazily(() => import('./features/jobs/JobsPage').then((page) => page.JobsPage));
const FindPage = lazily(() => import('./features/find/FindPage').then((page) => page.FindPage));
const BuildsPage = lazily(() => import('./features/builds/BuildsPage').then((page) => page.BuildsPage));
const HelpPage = lazily(() => import('./features/help/HelpPage').then((page) => page.HelpPage));
const StartPage = lazily(() => import('./features/start/StartPage').then((page) => page.StartPage));
const WorkbenchPage = lazily(() =>
  import('./features/workbench/WorkbenchPage').then((page) => page.WorkbenchPage),
);

function Toasts() {
  const { list } = useObserved(toasts);
  // What watches for words stays from the first on.
  const [begun, setBegun] = useState(false);
  if (list.length && !begun) setBegun(true);
  return begun ? (
    <Suspense fallback={null}>
      <ToastRegion />
    </Suspense>
  ) : null;
}

function Pages() {
  return (
    <Suspense fallback={null}>
      <Routes>
        <Route path="/" element={<BuildsPage />} />
        <Route path="/start" element={<StartPage />} />
        <Route path="/drivers" element={<DriversPage />} />
        <Route path="/drivers/compare" element={<ComparePage />} />
        <Route path="/jobs" element={<JobsPage />} />
        <Route path="/help/:page?" element={<HelpPage />} />
        <Route path="/builds/:id/find" element={<FindPage />} />
        <Route path="/builds/:id/:path?" element={<WorkbenchPage />} />
        <Route path="*" element={<NotFound />} />
      </Routes>
    </Suspense>
  );
}

const root = document.getElementById('root');
if (root) {
  // What was not sent yet belongs to a tab.
  await claimTab();
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <StagesContext value={STAGES}>
          <Broken>
            <BrowserRouter>
              <Pages />
            </BrowserRouter>
          </Broken>
          <Toasts />
        </StagesContext>
      </QueryClientProvider>
    </StrictMode>,
  );
}
