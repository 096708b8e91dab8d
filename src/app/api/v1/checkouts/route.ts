import { CheckoutsQuery } from '@/server/interface/paths';
import { checkoutsRead } from '@/server/interface/queries/lessons';
import { reads } from '@/server/interface/reads';

export const GET = reads('checkouts', CheckoutsQuery, checkoutsRead);
