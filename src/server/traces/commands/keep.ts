import { randomUUID } from 'node:crypto';
import type { TraceAnalysis } from '@/domain/trace';
import type { CurrentUser } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import type { Result } from '../../floor/result';
import { write } from '../../floor/write';
import { checkoutHead } from '../../checkout/queries/head';
import { mustDoAfter } from '../../fly/commands/exceeded';
import { keepFile, keepSeries } from '../files';
import { Exceedances, Traces } from '../tables';
import type { runTrace } from '../thread';

/**
 * Keeps a recording that was read: its file by the hash of what it holds, its drawing, what was found, and the limits to
 * be entered.
 */
export async function keepTrace(
  user: CurrentUser,
  where: { checkoutId: string; airframeId: string },
  done: Extract<Awaited<ReturnType<typeof runTrace>>, { ok: true }>,
  kept: {
    sortieId: string;
    hash: string;
    plain: Buffer;
    name: string;
    mapping: unknown;
    enter: TraceAnalysis['exceedances'];
  },
): Promise<Result<{ id: string; known: boolean }>> {
  const { sortieId, hash } = kept;
  await keepFile(hash, kept.plain);
  const id = `trace-${randomUUID()}`;
  keepSeries(id, done.series);
  const head = await checkoutHead(where.checkoutId);
  return write(async (t): Promise<Result<{ id: string; known: boolean }>> => {
    // Two uploads of one file at once: the second finds the first.
    const meanwhile = await Traces.first({ where: { sortieId, hash }, pick: ['id'] }, t);
    if (meanwhile) return { ok: true, id: meanwhile.id, known: true };
    await Traces.insert(
      {
        id,
        sortieId,
        airframeId: where.airframeId,
        hash,
        name: kept.name,
        bytes: kept.plain.length,
        mapping: kept.mapping ? kept.mapping : null,
        context: done.context,
        analysis: done.analysis,
        startUtc: done.startUtcMs === null ? null : new Date(done.startUtcMs).toISOString(),
        uploadedBy: user.id,
        uploadedAt: nowIso(),
      },
      t,
    );
    for (const [k, e] of kept.enter.entries()) {
      await Exceedances.insert(
        {
          id: `${id}-limit-${k + 1}`,
          traceId: id,
          airframeId: where.airframeId,
          sortieId,
          channel: e.channel,
          limitValue: e.limit,
          unit: e.unit,
          peak: e.peak,
          startS: e.startS,
          durationS: e.durationS,
          ...mustDoAfter(head?.sheet, e.channel),
          foundAt: nowIso(),
          seenBy: null,
        },
        t,
      );
    }
    return { ok: true, id, known: false };
  });
}
