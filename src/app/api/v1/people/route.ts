import { PageQuery } from '@/server/interface/paths';
import { peopleRead } from '@/server/interface/queries/people';
import { reads } from '@/server/interface/reads';

export const GET = reads('people', PageQuery, peopleRead);
