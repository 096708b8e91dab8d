import { PageQuery } from '@/server/interface/paths';
import { entriesRead } from '@/server/interface/queries/ledger';
import { reads } from '@/server/interface/reads';

export const GET = reads('ledger', PageQuery, entriesRead);
