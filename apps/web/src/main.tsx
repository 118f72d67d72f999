import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { ErrorPage } from './app/ErrorPage';
import { holdFaulty } from './app/hold-faulty';
import { Shell } from './app/Shell';
import { BenchPage } from './bench/BenchPage';
import { SeasonPage } from './season/SeasonPage';
import './style.css';

const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    errorElement: <ErrorPage />,
    HydrateFallback: () => null,
    children: [
      { index: true, element: <Navigate to="/bench" replace /> },
      { path: 'bench', element: <BenchPage />, errorElement: <ErrorPage /> },
      { path: 'new', lazy: async () => ({ Component: (await import('./bench/NewTreePage')).NewTreePage }), errorElement: <ErrorPage /> },
      { path: 'season', element: <SeasonPage />, errorElement: <ErrorPage /> },
      { path: 'walk', lazy: async () => ({ Component: (await import('./walk/WalkPage')).WalkPage }), errorElement: <ErrorPage /> },
      { path: 'walk/benches', lazy: async () => ({ Component: (await import('./walk/BenchesPage')).BenchesPage }), errorElement: <ErrorPage /> },
      { path: 'walk/sheet', lazy: async () => ({ Component: (await import('./walk/SheetPage')).SheetPage }), errorElement: <ErrorPage /> },
      { path: 'walk/tags', lazy: async () => ({ Component: (await import('./walk/TagsPage')).TagsPage }), errorElement: <ErrorPage /> },
      { path: 'phone', lazy: async () => ({ Component: (await import('./access/PhonePage')).PhonePage }), errorElement: <ErrorPage /> },
      { path: 'rack', lazy: async () => ({ Component: (await import('./rack/RackPage')).RackPage }), errorElement: <ErrorPage /> },
      // The turntable brings three.js: only a tree's page waits for it.
      { path: 'tree/:id/cuts', lazy: async () => ({ Component: (await import('./stages/remove/CutListPage')).CutListPage }), errorElement: <ErrorPage /> },
      { path: 'tree/:id/pieces', lazy: async () => ({ Component: (await import('./papers/pages')).PiecesPage }), errorElement: <ErrorPage /> },
      { path: 'tree/:id/record', lazy: async () => ({ Component: (await import('./record/RecordPage')).RecordPage }), errorElement: <ErrorPage /> },
      { path: 'tree/:id/proposal', lazy: async () => ({ Component: (await import('./papers/pages')).ProposalPage }), errorElement: <ErrorPage /> },
      { path: 'tree/:id/report', lazy: async () => ({ Component: (await import('./papers/pages')).ReportPage }), errorElement: <ErrorPage /> },
      { path: 'tree/:id/sheet', lazy: async () => ({ Component: (await import('./papers/pages')).SheetPage }), errorElement: <ErrorPage /> },
      { path: 'tree/:id/:stage?', lazy: async () => ({ Component: (await import('./stages/TreePage')).TreePage }), errorElement: <ErrorPage /> },
      { path: '*', element: <ErrorPage missing /> },
    ],
  },
]);

holdFaulty();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <RouterProvider router={router} />
  </StrictMode>,
);
