'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { plural } from '@/core/format';

/**
 * Sends what a flight left on this device as soon as an office page is open, and says so while anything still waits.
 * Loads the store only on a device that has one.
 */
export function OutboxNote({ account }: { account: { id: string; name: string } }) {
  const router = useRouter();
  const [note, setNote] = useState('');
  // Who signed in last on this device: a flight that somebody else took along asks who is recording.
  useEffect(() => {
    localStorage.setItem('jeito-account', JSON.stringify({ id: account.id, name: account.name }));
  }, [account.id, account.name]);
  // The page that stands for all others without a network is kept on every device, prepared for a flight or not.
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !window.isSecureContext || !('serviceWorker' in navigator)) return;
    const later = setTimeout(
      () => void navigator.serviceWorker.register('/sw.js', { scope: '/' }).catch(() => {}),
      8000,
    );
    return () => clearTimeout(later);
  }, []);
  useEffect(() => {
    let here = true;
    const send = async () => {
      const known = 'databases' in indexedDB ? await indexedDB.databases() : [{ name: 'jeito' }];
      if (!known.some((d) => d.name === 'jeito')) return;
      const { flush, waitingCount } = await import('@/offline/client');
      const before = await waitingCount();
      const result = before > 0 ? await flush() : null;
      if (!here) return;
      const waiting = await waitingCount();
      setNote(
        waiting > 0
          ? `${plural(waiting, 'item')} recorded on this device ${waiting === 1 ? 'has' : 'have'} not reached the server. ${result?.message ?? ''}`
          : '',
      );
      if (waiting < before) router.refresh();
    };
    const quietly = () => void send().catch(() => undefined);
    quietly();
    const timer = setInterval(quietly, 20_000);
    window.addEventListener('online', quietly);
    return () => {
      here = false;
      clearInterval(timer);
      window.removeEventListener('online', quietly);
    };
  }, [router]);
  return <div role="status">{note ? <p className="outbox-note">{note}</p> : null}</div>;
}
