import { windText, withUnit } from '@/core/format';
import { usableEnds } from '@/core/approach';
import { medianOf } from '@/core/constants';
import { ktPerUnit } from '@/core/speeds';
import { convertReference } from '@/core/wind';
import type { House } from '@/domain/programme';
import { sheetOn, surfaceOfStrip, touchdownPoint } from '@/core/sheet';
import type { TypeSheet } from '@/domain/sheet';
import { type SortiePack, fold } from '@/offline/protocol';
import type { CurrentUser } from '../../floor/auth/permissions';
import { may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { aerodromeAt } from '../../rules/content';
import { checkoutRecord } from '../../checkout/queries/record';
import { eventsOf, groundSamples } from '../../checkout/queries/flights';
import { briefedHere } from '../../checkout/queries/stage';
import { checkoutHead } from '../../checkout/queries/head';
import { lampMeaning } from '@/core/water';
import { flightStops, stopRules } from './stops';
import { windsReady } from './winds';
import { Sorties } from '../../checkout/tables';
import { Pilots } from '../../account/tables';

/** What a device needs to record this flight without the network; null when it is not this user's to record. */
export async function sortiePack(user: CurrentUser, sortieId: string): Promise<SortiePack | null> {
  const where = await Sorties.first({ where: { id: sortieId }, pick: ['checkoutId'] });
  const head = where && (await checkoutHead(where.checkoutId));
  if (!head || !may.runCheckout(user, head)) return null;
  const record = await checkoutRecord(head);
  const sortie = record.sorties.find((s) => s.id === sortieId);
  if (!sortie?.brief || !briefedHere(sortie, head)) return null;
  const aerodrome = await aerodromeAt(sortie.aerodrome);
  const { choices, snapshot } = sortie.brief;
  const { sheet } = head;
  const usedStrip =
    usableEnds(aerodrome, sheet.surface).find((e) => e.ident === choices.runwayEnd)?.surface ?? 'asphalt';
  const here = sheetOn(sheet, surfaceOfStrip(usedStrip)) ?? sheet;
  const { house, standard } = record;
  const speed = standard.criteria.find((c) => c.id === 'speed')?.measured ?? null;
  const variation = aerodrome.variationDeg;
  const second =
    sortie.secondPilotId === null ? null : await Pilots.first({ where: { id: sortie.secondPilotId }, pick: ['name'] });
  const events = await eventsOf({ sortieId });
  return {
    sortieId,
    checkoutId: head.id,
    lesson: sortie.lesson,
    flownOn: sortie.flownOn,
    author: user.id,
    authorName: user.name,
    pilotName: head.pilotName,
    registration: head.registration,
    typeName: head.typeName,
    pack: head.pack,
    unit: sheet.dial.unit,
    tailwheel: sheet.gear.layout === 'tailwheel',
    hasFlapOrGear: sheet.flapSteps.some((f) => f > 0) || sheet.gear.retractable,
    runwayEnd: choices.runwayEnd,
    runways: usableEnds(aerodrome, sheet.surface).map((e) => ({
      ident: e.ident,
      magneticDeg: convertReference(e.trueBearingDeg, 'true', 'magnetic', variation),
      widthM: e.widthM,
      surface: e.surface,
    })),
    aimPointM: here.landing.aimPointM.value,
    touchdownM: touchdownPoint(here),
    box: standard.boxM,
    fenceTarget: snapshot.gates[snapshot.gates.length - 1]?.target ?? null,
    intended: choices.intended,
    focus: choices.focus,
    windText: choices.wind ? windText(choices.wind) : 'no wind',
    winds: await windsReady(sortie.aerodrome, choices.wind),
    triggers: house.triggers,
    items: record.programmes
      .flatMap((p) => p.items)
      .flatMap((i) => (i.evidence.kind === 'observed' ? [{ ...i, evidence: i.evidence }] : []))
      .map((i) => ({
        id: i.id,
        title: i.title,
        text: i.text,
        where: i.where,
        waivable: i.waivable,
        forms: [...(i.forms ?? []), ...(i.asks.length > 0 ? (['handling'] as const) : [])],
        asks: i.asks,
        most: i.evidence.maxIntervention,
        needed: i.evidence.needed,
      })),
    asks: [
      ...new Set(
        record.programmes.flatMap((p) => p.items).flatMap((i) => (i.evidence.kind === 'observed' ? [] : i.asks)),
      ),
    ],
    gearLamps: sheet.surface === 'amphibian' && sheet.gear.lamps.length > 0 ? lampMeaning(sheet.gear.lamps) : null,
    cues: (snapshot.habits ?? []).map((h) => ({
      where: h.phase === 'before' || h.phase === 'ground' ? 'ground' : 'flight',
      action: h.action,
      opposite: h.opposite,
      name: h.name,
      cue: h.cue,
    })),
    preparedAt: nowIso(),
    plan: (choices.plan ?? []).map((b) => ({ title: b.title, minutes: b.minutes })),
    pilotId: head.pilotId,
    second:
      second && sortie.secondPilotId !== null
        ? { pilotId: sortie.secondPilotId, name: second.name, ownCheckout: sortie.secondCheckoutId !== null }
        : null,
    gates: snapshot.gates.map((g) => ({ name: g.name, target: g.target })),
    speedLimitKt: speed,
    ktPerUnit: ktPerUnit(sheet.dial.unit),
    airwork: { rows: standard.airwork, edgeShare: standard.edgeShare },
    flapSteps: sheet.flapSteps,
    lists: listsOf(here, house),
    landmark: snapshot.landmark,
    clock: {
      bookingMin: choices.bookingMin,
      fuelL: choices.fuelL,
      flowLPerH: sheet.engine.flowLPerH.value,
      night: choices.night,
      reserveMin: house.reserveMin,
      groundMin: medianOf(await groundSamples(head.typeCode)) ?? house.groundMin,
      circuitMin: house.circuitMin,
    },
    failures: {
      words: [...house.simulatedFailures, ...(sheet.twin ? house.twinFailures : [])],
      floorFt: house.failureFloorFt,
      demonstrationFt: house.demonstrationFt,
      source: house.reference,
      twin: sheet.twin ? { vsse: sheet.twin.vsse.value, vmca: sheet.twin.vmca.value } : null,
    },
    reach: {
      sheet,
      elevationFt: aerodrome.elevationFt,
      variationDeg: variation,
      circuitHeightFt: aerodrome.circuitHeightFt,
      sigma: snapshot.air.sigma ?? 1,
      windFromTrueDeg: snapshot.windTrueDeg ?? 360,
      windKt: choices.wind?.kt ?? 0,
      turnBackFt: house.reach.turnBackFt,
      reactionS: house.reach.reactionS,
      bankDeg: house.reach.bankDeg,
      over50M: snapshot.landing?.need.over50M ?? null,
      strips: aerodrome.runways.map((r) => ({
        surface: r.surface,
        lengthM: r.lengthM,
        elevationFt: r.elevationFt,
        eastM: r.centre.eastM,
        northM: r.centre.northM,
        ends: r.ends.map((e) => ({ ident: e.ident, trueBearingDeg: e.trueBearingDeg, circuit: e.circuit })),
      })),
    },
    stops: {
      rules: stopRules(sheet, house, aerodrome, snapshot, fold(events).overrides[sortieId] !== undefined),
      flight: await flightStops(head, sortie, [Date.parse(nowIso())]),
    },
    events,
  };
}

/** What is said from memory or done in order: flows and checks of the sheet, its speeds, the words of an exchange. */
function listsOf(sheet: TypeSheet, house: House): NonNullable<SortiePack['lists']> {
  const { speeds, dial } = sheet;
  const named: [string, { value: number } | null][] = [
    ['Vr', speeds.vr],
    ['Vx', speeds.vx],
    ['Vy', speeds.vy],
    ['Va', speeds.va],
    ['best glide', speeds.bestGlide],
    ['Vno', speeds.vno],
    ['Vne', speeds.vne],
    ['gear down at most', speeds.vloExtend],
    ['gear up at most', speeds.vloRetract],
    ...speeds.vfe.map((f): [string, { value: number }] => [`flap ${f.flapDeg}\u00b0 at most`, f.speed]),
    ...(sheet.twin
      ? ([
          ['Vmca', sheet.twin.vmca],
          ['Vsse', sheet.twin.vsse],
          ['Vyse', sheet.twin.vyse],
        ] as [string, { value: number }][])
      : []),
    ...sheet.approach.map((g): [string, { value: number }] => [g.name.toLowerCase(), g.speed]),
  ];
  return [
    ...sheet.flows.map((f, i) => ({ key: `flow-${i}`, title: f.name, kind: 'flow' as const, steps: f.steps })),
    { key: 'go-around', title: 'Go-around', kind: 'flow', steps: sheet.goAroundFlow },
    { key: 'final', title: 'Five things on final', kind: 'flow', steps: house.finalChecks },
    {
      key: 'speeds',
      title: 'Speeds from memory',
      kind: 'speeds',
      steps: named.flatMap(([name, v]) => (v ? [`${name} ${withUnit(v.value, dial.unit)}`] : [])),
    },
    {
      key: 'exchange',
      title: 'Exchange of control',
      kind: 'exchange',
      steps: house.exchangeWords.map((w, i) => `${w}${i === 1 ? ', hands and feet clear' : ''}`),
    },
  ];
}
