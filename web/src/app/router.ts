/** The router, behind this one file: pages are loaded when they are first opened. */
import { createRouter } from 'sv-router';
import { health } from './health.svelte';
import JobsView from '../features/jobs/JobsView.svelte';

/** A view that is loaded when it is first opened; where its script cannot be had, the screen says so and offers to reload. */
function later<View>(load: () => Promise<View>): () => Promise<View> {
  return () =>
    load().catch((problem: unknown) => {
      health.broken = true;
      throw problem;
    });
}

export const { p, navigate, isActive, route } = createRouter({
  '/': JobsView,
  '/jobs/:id': later(() => import('../features/plan/PlanView.svelte')),
  '/jobs/:id/photo': later(() => import('../features/photo/PhotoView.svelte')),
  '/jobs/:id/card': later(() => import('../features/plan/CardView.svelte')),
  '/bench': later(() => import('../features/bench/BenchView.svelte')),
  '/bench/:id': later(() => import('../features/bench/BenchView.svelte')),
  '/today': later(() => import('../features/today/TodayView.svelte')),
  '/gauge': later(() => import('../features/gauge/GaugeList.svelte')),
  '/gauge/pair': later(() => import('../features/gauge/PairView.svelte')),
  '/gauge/practice': later(() => import('../features/gauge/PracticeBore.svelte')),
  '/gauge/:id': later(() => import('../features/gauge/GaugeView.svelte')),
  '/light': later(() => import('../features/light/LightView.svelte')),
  '/log': later(() => import('../features/log/LogView.svelte')),
  '/log/:id': later(() => import('../features/log/RunView.svelte')),
  '/manual': later(() => import('../features/manual/ManualView.svelte')),
  '/manual/:page': later(() => import('../features/manual/ManualView.svelte')),
  '/rack': later(() => import('../features/rack/RackView.svelte')),
  '/rack/:id': later(() => import('../features/rack/RackView.svelte')),
  '/settings': later(() => import('../features/settings/SettingsView.svelte')),
  '/tables': later(() => import('../features/tables/TablesView.svelte')),
  // Only while developing: a built program has no gallery in it.
  '/gallery': import.meta.env.DEV
    ? later(() => import('./gallery/Gallery.svelte'))
    : later(() => import('./NoPage.svelte')),
  '*': later(() => import('./NoPage.svelte')),
});
