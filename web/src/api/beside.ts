/** Taps that contradict nothing that another screen may have tapped meanwhile. */
export const BESIDE: readonly string[] = ['waiting', 'operated', 'measured', 'photo', 'note', 'trouble', 'corrected'];
