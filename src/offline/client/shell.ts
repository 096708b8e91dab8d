/**
 * The page itself on the device: the service worker holds the cockpit shell, so that it opens cold without a network.
 */
export type ShellState = { kept: true; lasting: boolean } | { kept: false; reason: string };

/** How long a first visit may take to fetch the shell, ms. */
const SHELL_WAIT_MS = 30_000;

/**
 * Puts the cockpit shell on this device and asks the browser not to throw the storage away.
 * @returns `lasting` when the browser promises to keep it; a reason in words when the page will not open without the
 * network
 */
export async function keepShell(): Promise<ShellState> {
  if (!window.isSecureContext) return { kept: false, reason: 'this address is neither https nor this machine' };
  if (!('serviceWorker' in navigator)) return { kept: false, reason: 'this browser keeps no pages (private window?)' };
  try {
    await navigator.serviceWorker.register('/sw.js', { scope: '/' });
    const ready = await Promise.race([
      navigator.serviceWorker.ready,
      new Promise<null>((resolve) => setTimeout(() => resolve(null), SHELL_WAIT_MS)),
    ]);
    if (!ready) return { kept: false, reason: 'the page was not stored in time' };
    if (!(await shellKept())) return { kept: false, reason: 'the page could not be stored (is the device full?)' };
    const lasting = (await navigator.storage?.persist?.().catch(() => false)) ?? false;
    return { kept: true, lasting };
  } catch {
    return { kept: false, reason: 'the browser refused to store the page' };
  }
}

/** Is the cockpit shell in the cache now? */
export async function shellKept(): Promise<boolean> {
  if (!('caches' in globalThis)) return false;
  return (await caches.match('/fly', { ignoreSearch: true })) !== undefined;
}
