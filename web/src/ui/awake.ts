/** Keeps the screen awake until the answer is called; a hidden page loses the lock, so it is asked for again. */
export function keepAwake(): () => void {
  let lock: WakeLockSentinel | null = null;
  let left = false;
  const ask = async () => {
    if (left || document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
    try {
      lock = await navigator.wakeLock.request('screen');
      if (left) await lock.release();
    } catch {
      // The battery is low, or the browser does not let it: the bench works all the same.
    }
  };
  void ask();
  document.addEventListener('visibilitychange', ask);
  return () => {
    left = true;
    document.removeEventListener('visibilitychange', ask);
    void lock?.release();
  };
}
