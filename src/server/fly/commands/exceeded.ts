import type { Transaction } from 'sequelize';
import type { LimitExceeded } from '@/domain/capture';
import type { TypeSheet } from '@/domain/sheet';
import type { LimitChannel } from '@/domain/words';
import type { FoldedRow } from '@/offline/protocol';
import { nowIso } from '../../floor/clock';
import { Exceedances } from '../tables';
import type { CheckoutHead } from '../../checkout/queries/head';

const NO_RULE = 'The sheet does not say what must be done. Ask the maintenance organisation before the next flight.';
/** What the sheet says must be done after a limit was passed, and where it says so. */
export function mustDoAfter(
  sheet: TypeSheet | undefined,
  channel: LimitChannel,
): { mustDo: string; mustDoSource: string | null } {
  const rule = sheet?.afterLimit.find((a) => a.channel === channel);
  return { mustDo: rule?.text ?? NO_RULE, mustDoSource: rule?.ref ?? null };
}

/** Enters each limit passed that was seen by eye, once: it holds the aeroplane until it is released. */
export async function enterSeen(
  seen: readonly FoldedRow<LimitExceeded>[],
  flight: { head: CheckoutHead; airframeId: string; sortieId: string },
  t: Transaction,
): Promise<void> {
  for (const { id, author, data } of seen) {
    const row = `${id}-limit`;
    if (await Exceedances.first({ where: { id: row }, pick: ['id'] }, t)) continue;
    await Exceedances.insert(
      {
        id: row,
        traceId: null,
        airframeId: flight.airframeId,
        sortieId: flight.sortieId,
        channel: data.channel,
        limitValue: null,
        unit: '',
        peak: null,
        startS: null,
        durationS: null,
        ...mustDoAfter(flight.head.sheet, data.channel),
        foundAt: nowIso(),
        seenBy: author,
      },
      t,
    );
  }
}
