/** The router, behind this one file: pages are loaded when they are first opened. */
import { createRouter } from 'sv-router';
import { health } from './health.svelte';
import JobsView from '../features/jobs/JobsView.svelte';
import Moved from './Moved.svelte';

// A view whose script cannot be had: the program was updated, or is out of reach. (The router knows a view that is loaded later by
// how its function is written, so it cannot be wrapped.)
window.addEventListener('vite:preloadError', () => (health.broken = true));

export const { p, navigate, isActive, route } = createRouter({
  '/': Moved,
  '/jobs': JobsView,
  '/jobs/:id': () => import('../features/plan/PlanView.svelte'),
  '/jobs/:id/photo': () => import('../features/photo/PhotoView.svelte'),
  '/jobs/:id/quote': () => import('../features/quote/QuoteView.svelte'),
  '/jobs/:id/card': () => import('../features/plan/CardView.svelte'),
  '/bench': () => import('../features/bench/BenchView.svelte'),
  '/bench/:id': () => import('../features/bench/BenchView.svelte'),
  '/trial': () => import('../features/trial/TrialView.svelte'),
  '/schedule': () => import('../features/schedule/ScheduleView.svelte'),
  '/today': Moved,
  '/gauge': () => import('../features/gauge/GaugeList.svelte'),
  '/gauge/pair': () => import('../features/gauge/PairView.svelte'),
  '/gauge/practice': () => import('../features/gauge/PracticeBore.svelte'),
  '/gauge/:id': () => import('../features/gauge/GaugeView.svelte'),
  '/light': () => import('../features/light/LightView.svelte'),
  '/log': () => import('../features/log/LogView.svelte'),
  '/log/:id': () => import('../features/log/RunView.svelte'),
  '/manual': () => import('../features/manual/ManualView.svelte'),
  '/manual/:page': () => import('../features/manual/ManualView.svelte'),
  '/rack': () => import('../features/rack/RackView.svelte'),
  '/rack/:id': () => import('../features/rack/RackView.svelte'),
  '/settings': () => import('../features/settings/SettingsView.svelte'),
  '/tables': () => import('../features/tables/TablesView.svelte'),
  // Only while developing: a built program has no gallery in it.
  '/gallery': import.meta.env.DEV ? () => import('./gallery/Gallery.svelte') : () => import('./NoPage.svelte'),
  '*': () => import('./NoPage.svelte'),
});
