/** Asked once in the life of a shop, so it is not loaded with the list of jobs. */
export const loadFirstHour = async () => (await import('../features/start/FirstHour.svelte')).default;
