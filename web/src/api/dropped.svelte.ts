/** What was dropped on another view and is looked into where it belongs: the text of a rack or of own things, the name of a backup. */
export const dropped = $state<{ rack: string | null; own: string | null; backup: string | null }>({
  rack: null,
  own: null,
  backup: null,
});
