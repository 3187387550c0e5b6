/** Has the service worker keep the screens, where the browser lets it: on this computer, or over a trusted certificate. */
export function keepScreens() {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  navigator.serviceWorker.register('/sw.js').catch(() => {
    // The certificate is not trusted: the program works while there is a connection.
  });
}
