import { type BriefResult, type Card, kneeboardCard } from '@/core/approach';
import { effectiveSheet } from '@/core/plan';
import type { BriefChoices } from '@/domain/brief';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { contentById } from '../../rules/content';
import { row } from '../../floor/connection';
import { checkoutHead } from './head';
import { parsedAirframe, parsedSheet } from '../../hangar/sheets';

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
  const b = await row<{
    id: string;
    checkout_id: string;
    version: number;
    choices: string;
    snapshot: string;
    created_at: string;
    lesson: number;
    sheets: string | null;
  }>('SELECT b.*, s.lesson FROM briefs b JOIN sorties s ON s.id = b.sortie_id WHERE b.id = :id', { id });
  const head = b && (await checkoutHead(b.checkout_id));
  if (!b || !head || !may.viewCheckout(user, head)) return null;
  const choices = JSON.parse(b.choices) as BriefChoices;
  const snapshot = JSON.parse(b.snapshot) as BriefResult;
  const pinned = b.sheets ? (JSON.parse(b.sheets) as { type: string; typeVersion: number; airframe: string }) : null;
  const type =
    pinned && (await row<{ sheet: string }>('SELECT sheet FROM type_versions WHERE id = :id', { id: pinned.type }));
  const frame =
    pinned &&
    (await row<{ sheet: string }>('SELECT sheet FROM airframe_versions WHERE id = :id', { id: pinned.airframe }));
  const sheet =
    pinned && type && frame
      ? effectiveSheet(parsedSheet(pinned.type, type.sheet), parsedAirframe(pinned.airframe, frame.sheet))
      : head.sheet;
  const card = kneeboardCard({
    pilotName: head.pilotName,
    registration: head.registration,
    lesson: b.lesson,
    briefVersion: b.version,
    savedAt: b.created_at,
    typeVersion: pinned?.typeVersion ?? head.typeVersion,
    sheet,
    house: await contentById('house', head.houseId),
    choices,
    result: snapshot,
    nowIso: nowIso(),
  });
  return {
    id: b.id,
    checkoutId: head.id,
    pilotId: head.pilotId,
    savedAt: b.created_at,
    version: b.version,
    lesson: b.lesson,
    choices,
    snapshot,
    card,
  };
}
