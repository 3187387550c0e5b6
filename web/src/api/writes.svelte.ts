/** Counts the changes that have reached the server, so that a list can follow what another view still had to keep. */
export const writes = $state({ done: 0 });
