import { readsOne } from '@/server/interface/reads';
import { recordJson } from '@/server/ledger/papers/record';

export const GET = readsOne('record', recordJson);
