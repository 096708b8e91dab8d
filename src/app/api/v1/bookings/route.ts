import { SpanQuery } from '@/server/interface/paths';
import { bookingsRead } from '@/server/interface/queries/bookings';
import { reads } from '@/server/interface/reads';

export const GET = reads('bookings', SpanQuery, bookingsRead);
