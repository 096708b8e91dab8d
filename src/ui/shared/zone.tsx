'use client';
import { createContext, useContext } from 'react';
import { dateText, localDate } from '@/core/format';

/** The clock every screen shows: that of the aerodrome, whatever the device's own. UTC where none was given. */
const ZoneContext = createContext('UTC');
export const Zone = ZoneContext.Provider;
export const useZone = (): string => useContext(ZoneContext);

/** The day it was at the aerodrome. */
export function Day({ at }: { at: string }) {
  return dateText(localDate(at, useZone()));
}
