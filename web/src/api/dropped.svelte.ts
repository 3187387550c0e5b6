/** A rack file that was dropped on another view: the rack looks into it when it is there. */
export const dropped = $state<{ rack: string | null }>({ rack: null });
