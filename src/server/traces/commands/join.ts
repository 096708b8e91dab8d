import { z } from 'zod';
import type { ColumnMapping } from '@/core/trace';
import type { CurrentUser } from '../../floor/auth/permissions';
import { heavy } from '../../floor/busy';
import { type Result, problem, zodProblems } from '../../floor/result';
import { worded } from '../../floor/sentences';
import { hashOf, keptFile, textOf } from '../files';
import { type TraceView, traceById } from '../queries/traces';
import { told } from '../sentences';
import { runTrace } from '../thread';
import { keepTrace } from './keep';
import { contextOfSortie } from './traces';

export const JoinForm = z.object({ traceId: z.string().min(1), otherId: z.string().min(1) });

/**
 * Joins two recordings of one flight: aligned by what they flew, each quantity from the recorder that shows it better. The
 * joined one is a recording of its own, beside the two, kept as a table. Limits either of them exceeded are entered
 * already; only what both together show is new.
 */
export async function joinRecordings(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ id: string; known: boolean }>> {
  const parsed = JoinForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const found = await Promise.all([parsed.data.traceId, parsed.data.otherId].map((id) => traceById(user, id)));
  // Whichever is chosen first, the two make the same; the time is that of the one that recorded more.
  const [one, two] = found
    .flatMap((t) => (t?.runs ? [t] : []))
    .sort((a, b) => channels(b) - channels(a) || a.uploadedAt.localeCompare(b.uploadedAt) || a.id.localeCompare(b.id));
  if (!one || !two) return problem('', told('not-found'));
  if (one.id === two.id) return problem('', told('same-recording'));
  if (one.sortieId !== two.sortieId) return problem('', told('other-flight'));
  if (one.analysis.source.joined || two.analysis.source.joined) return problem('', told('joined-already'));
  const where = await contextOfSortie(user, one.sortieId);
  if (!where) return problem('', told('not-found'));
  return heavy('analysis', user.id, async () => {
    const [text, other] = await Promise.all([one, two].map(async (t) => textOf(await keptFile(t.hash))));
    const done = await runTrace({
      text: text ?? '',
      mapping: one.mapping as ColumnMapping | null,
      context: one.context,
      beside: { text: other ?? '', mapping: two.mapping as ColumnMapping | null, names: [one.name, two.name] },
    });
    if (!done.ok) return problem('', worded('recording', done.message));
    const plain = Buffer.from(done.table ?? '');
    const starts = done.analysis.source.joined?.map((j) => j.startS) ?? [];
    const entered = [one, two].flatMap((t, k) =>
      t.analysis.exceedances.map((e) => ({ channel: e.channel, startS: e.startS + (starts[k] ?? 0) })),
    );
    return keepTrace(user, where, done, {
      sortieId: one.sortieId,
      hash: hashOf(plain),
      plain,
      name: `${one.name} + ${two.name}`.slice(0, 120),
      mapping: null,
      enter: done.analysis.exceedances.filter(
        (e) => !entered.some((x) => x.channel === e.channel && Math.abs(x.startS - e.startS) < SAME_LIMIT_S),
      ),
    });
  });
}
const channels = (t: TraceView): number => t.analysis.source.channels.length;
/** Two of one limit this close are one, seconds. */
const SAME_LIMIT_S = 5;
