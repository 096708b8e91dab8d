import { may } from '@/server/floor/auth/permissions';
import type { DebriefSnapshot } from '@/server/debrief/commands/debrief';
import { door, fileAnswer } from '@/server/door/route';
import { homeAerodrome } from '@/server/rules/content';
import { paper } from '@/server/papers/papers';
import { debriefById } from '@/server/debrief/queries/debrief';

/** The PDF of one debrief, for those who may see it; the same answer for everybody else. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in', heavy: 'pdf' }, async ({ user, params }) => {
  const debrief = await debriefById(params.id);
  if (!debrief || !may.viewCheckout(user, debrief)) return null;
  const pdf = await paper('debrief', {
    ...debrief,
    snapshot: debrief.snapshot as DebriefSnapshot,
    timeZone: (await homeAerodrome()).timeZone,
  });
  return fileAnswer(pdf, { type: 'application/pdf', name: `debrief-${debrief.id.slice(0, 8)}.pdf`, inline: true });
});
