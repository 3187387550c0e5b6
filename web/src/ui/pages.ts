/** Only long lists have pages. It stands here, for the router takes a view in which it finds an import for one to be loaded. */
export const loadPages = () => import('./Pages.svelte');
