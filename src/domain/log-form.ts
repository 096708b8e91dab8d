import { LogEntry } from '@/domain/recency';
import { z } from 'zod';

export const LogForm = LogEntry.extend({ requestId: z.uuid(), pilotId: z.string().min(1) });
