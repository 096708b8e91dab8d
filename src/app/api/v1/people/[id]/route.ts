import { personRead } from '@/server/interface/queries/people';
import { readsOne } from '@/server/interface/reads';

export const GET = readsOne('people', personRead);
