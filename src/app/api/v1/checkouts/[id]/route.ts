import { checkoutRead } from '@/server/interface/queries/lessons';
import { readsOne } from '@/server/interface/reads';

export const GET = readsOne('checkouts', checkoutRead);
