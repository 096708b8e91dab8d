import { bookingRead } from '@/server/interface/queries/bookings';
import { readsOne } from '@/server/interface/reads';

export const GET = readsOne('bookings', bookingRead);
