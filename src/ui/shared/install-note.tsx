'use client';
import { useSyncExternalStore } from 'react';

type How = 'installed' | 'no-tls' | 'apple' | 'other';
const here = (): How =>
  matchMedia('(display-mode: standalone)').matches
    ? 'installed'
    : !isSecureContext
      ? 'no-tls'
      : /iPad|iPhone|Macintosh.*Mobile/.test(navigator.userAgent)
        ? 'apple'
        : 'other';
const SAID: Record<How, string> = {
  installed:
    'Jeito runs as an application here. It opens on your home, and without a network on the flights of this device.',
  'no-tls': 'On this address it stays a page in the browser: an application needs a secure address (https).',
  apple: 'Put it on the home screen: Share, then Add to Home Screen.',
  other: 'Install it from the menu of the browser: Install application, or Add to home screen.',
};
const never = () => () => undefined;

/** How Jeito becomes an application on this device, or that it is one. */
export function InstallNote() {
  const how = useSyncExternalStore<How | null>(never, here, () => null);
  return (
    <p className="mb-0">
      {how === null ? '' : SAID[how]} Without a network it records flights that were prepared on this device; everything
      else waits.
    </p>
  );
}
