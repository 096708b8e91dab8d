import { LogEntry } from '@/domain/recency';
import { z } from 'zod';

/** Flights that are planned, to see what would hold after them. */
export const WhatIfForm = z.object({
  pilotId: z.string().min(1),
  onDate: z.iso.date('Enter the date as 24 Nov 2026.'),
  planned: z
    .array(
      LogEntry.pick({ flownOn: true, typeCode: true, landings: true, fullStops: true, night: true, surface: true }),
    )
    .min(1, 'Add a flight.')
    .max(12, 'At most twelve flights.'),
});
export const LogForm = LogEntry.extend({ requestId: z.uuid(), pilotId: z.string().min(1) });
