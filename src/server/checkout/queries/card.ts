import { type BriefResult, type Card, kneeboardCard } from '@/core/approach';
import { effectiveSheet } from '@/core/plan';
import type { BriefChoices } from '@/domain/brief';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { aerodromeAt, contentById } from '../../rules/content';
import { checkoutHead } from './head';
import { parsedAirframe, parsedSheet } from '../../hangar/sheets';
import { Briefs } from '../tables';
import { AirframeVersions, TypeVersions } from '../../hangar/tables';

export interface StoredBrief {
  id: string;
  checkoutId: string;
  pilotId: string;
  savedAt: string;
  version: number;
  lesson: number;
  choices: BriefChoices;
  snapshot: BriefResult;
  card: Card;
}

/** A stored brief with its card, as it was saved; null when there is none or it is not this user's to see. */
export async function briefCard(user: CurrentUser, id: string): Promise<StoredBrief | null> {
  const b = await Briefs.first({
    where: { id },
    pick: ['id', 'checkoutId', 'version', 'choices', 'snapshot', 'createdAt', 'sheets'],
    with: { sortie: ['lesson'] },
  });
  const head = b && (await checkoutHead(b.checkoutId));
  if (!b || !head || !may.viewCheckout(user, head)) return null;
  const choices = b.choices;
  const snapshot = b.snapshot;
  const pinned = b.sheets ? b.sheets : null;
  const type = pinned && (await TypeVersions.first({ where: { id: pinned.type }, pick: ['sheet'] }));
  const frame = pinned && (await AirframeVersions.first({ where: { id: pinned.airframe }, pick: ['sheet'] }));
  const sheet =
    pinned && type && frame
      ? effectiveSheet(parsedSheet(pinned.type, type.sheet), parsedAirframe(pinned.airframe, frame.sheet))
      : head.sheet;
  const card = kneeboardCard({
    pilotName: head.pilotName,
    registration: head.registration,
    lesson: b.sortie.lesson,
    briefVersion: b.version,
    savedAt: b.createdAt,
    typeVersion: pinned?.typeVersion ?? head.typeVersion,
    sheet,
    house: await contentById('house', head.houseId),
    choices,
    result: snapshot,
    nowIso: nowIso(),
    timeZone: (await aerodromeAt(choices.aerodrome)).timeZone,
  });
  return {
    id: b.id,
    checkoutId: head.id,
    pilotId: head.pilotId,
    savedAt: b.createdAt,
    version: b.version,
    lesson: b.sortie.lesson,
    choices,
    snapshot,
    card,
  };
}
