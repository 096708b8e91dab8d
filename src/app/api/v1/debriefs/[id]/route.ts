import { debriefRead } from '@/server/interface/queries/lessons';
import { readsOne } from '@/server/interface/reads';

export const GET = readsOne('debriefs', debriefRead);
