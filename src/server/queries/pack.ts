import { windText } from '@/core/format';
import { usableEnds } from '@/core/approach';
import { convertReference } from '@/core/wind';
import type { TypeSheet } from '@/domain/sheet';
import type { SortiePack } from '@/offline/protocol';
import type { CurrentUser } from '../auth/permissions';
import { may } from '../auth/permissions';
import { nowIso } from '../clock';
import { homeAerodrome } from '../content';
import { row } from '../db/connection';
import { checkoutHead, checkoutRecord, eventsOf } from './checkout';

/** What a device needs to record this flight without the network; null when it is not this user's to record. */
export async function sortiePack(user: CurrentUser, sortieId: string): Promise<SortiePack | null> {
  const where = await row<{ checkout_id: string }>('SELECT checkout_id FROM sorties WHERE id = :sortieId', { sortieId });
  const head = where && (await checkoutHead(where.checkout_id));
  if (!head || !may.runCheckout(user, head)) return null;
  const record = await checkoutRecord(head);
  const sortie = record.sorties.find((s) => s.id === sortieId);
  if (!sortie?.brief) return null;
  const aerodrome = await homeAerodrome();
  const { choices, snapshot } = sortie.brief;
  return {
    sortieId, checkoutId: head.id, lesson: sortie.lesson, flownOn: sortie.flownOn, author: user.id, authorName: user.name, pilotName: head.pilotName, registration: head.registration,
    typeName: head.typeName, pack: head.pack, unit: head.sheet.dial.unit, tailwheel: head.sheet.gear.layout === 'tailwheel',
    hasFlapOrGear: head.sheet.flapSteps.some((f) => f > 0) || head.sheet.gear.retractable,
    runwayEnd: choices.runwayEnd,
    runways: usableEnds(aerodrome, head.sheet.surface).map((e) => ({ ident: e.ident, magneticDeg: convertReference(e.trueBearingDeg, 'true', 'magnetic', aerodrome.variationDeg), widthM: e.widthM })),
    aimPointM: head.sheet.landing.aimPointM.value, box: record.standard.boxM, fenceTarget: snapshot.gates[snapshot.gates.length - 1]?.target ?? null,
    intended: choices.intended, focus: choices.focus, windText: choices.wind ? windText(choices.wind) : 'no wind', triggers: record.house.triggers,
    items: record.programmes.flatMap((p) => p.items).filter((i) => i.evidence.kind === 'observed').map((i) => ({ id: i.id, title: i.title, text: i.text, where: i.where, waivable: i.waivable })),
    gearLamps: head.sheet.surface === 'amphibian' && head.sheet.gear.lamps.length > 0 ? lampMeaning(head.sheet.gear.lamps) : null,
    cues: (snapshot.habits ?? []).map((h) => ({ where: h.phase === 'before' || h.phase === 'ground' ? 'ground' : 'flight', action: h.action, opposite: h.opposite, name: h.name, cue: h.cue })),
    preparedAt: nowIso(), events: await eventsOf({ sortieId }),
  };
}

const lampMeaning = (lamps: TypeSheet['gear']['lamps']): NonNullable<SortiePack['gearLamps']> =>
  lamps.reduce<NonNullable<SortiePack['gearLamps']>>((all, l) => ({ ...all, [l.wheel]: { ...all[l.wheel], [l.state]: l.means } }), {});
