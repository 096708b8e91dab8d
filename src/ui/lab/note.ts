'use client';
import type { LabNote } from '@/domain/lab';

const keyOf = (checkoutId: string): string => `jeito.lab-note.${checkoutId}`;

/** Hands a page of the lab over to the brief of a checkout, on this device. */
export function noteForBrief(checkoutId: string, note: LabNote): void {
  sessionStorage.setItem(keyOf(checkoutId), JSON.stringify([...waitingNotes(checkoutId), note]));
}
/** What waits to be put into the brief of a checkout. */
export function waitingNotes(checkoutId: string): LabNote[] {
  try {
    const text = sessionStorage.getItem(keyOf(checkoutId));
    const read: unknown = text === null ? [] : JSON.parse(text);
    return Array.isArray(read) ? (read as LabNote[]) : [];
  } catch {
    return [];
  }
}
export const notesTaken = (checkoutId: string): void => sessionStorage.removeItem(keyOf(checkoutId));
