import { entryRead } from '@/server/interface/queries/ledger';
import { readsOne } from '@/server/interface/reads';

export const GET = readsOne('ledger', entryRead);
