/** What was dropped on another view and is looked into where it belongs: the text of a rack, the name of a backup. */
export const dropped = $state<{ rack: string | null; backup: string | null }>({ rack: null, backup: null });
