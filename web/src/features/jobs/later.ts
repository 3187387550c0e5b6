/** What few visits need. It stands here, for the router takes a view in which it finds an import for one to be loaded. */
export const loadPages = () => import('../../ui/Pages.svelte');
export const loadImport = () => import('./ImportSheet.svelte');
