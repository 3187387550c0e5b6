/** Whether the program lets this device in. A tablet that was taken off, or whose month is over, is asked to pair again. */
export const letIn = $state({ out: false });
