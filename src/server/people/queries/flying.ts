import type { Transaction } from 'sequelize';
import { type Place, isNight, sunTimes } from '@/core/sun';
import { type TypedEvent, classOf, loggedEvents } from '@/core/recency';
import type { NightRule } from '@/domain/recency';
import { aerodromes, newestContent } from '../../rules/content';
import type { RowOf } from '../../floor/statement';
import * as ask from '../../floor/statements/people';
import { CheckoutMoves, Checkouts, Sorties } from '../../checkout/tables';
import { Users } from '../../account/tables';
import { CaptureEvents, Landings } from '../../fly/tables';
import { Types, TypeVersions } from '../../hangar/tables';
import { ContentVersions } from '../../rules/tables';
import { Erasures, LogbookFlights, LogbookImports, LoggedFlights, StruckFlights } from '../tables';
import { derived } from '../../floor/derived';

/** A landing as recency sees it; an instant nobody knows is never night. */
type FlyingRow = RowOf<typeof ask.flownByPilot>;

/** Hours of the day, UTC, in which it is never night at any of the places on any day of the year; null = there are none. */
function alwaysDay(places: readonly Place[]): { from: string; to: string } | null {
  const all = places.flatMap((place) => ['2026-06-21', '2026-12-21'].map((d) => sunTimes(d, place)));
  if (all.some((t) => t.sunrise === null || t.sunset === null)) return null;
  const from =
    all
      .map((t) => (t.sunrise ?? '').slice(11, 16))
      .sort()
      .at(-1) ?? '';
  const to = all.map((t) => (t.sunset ?? '').slice(11, 16)).sort()[0] ?? '';
  return from < to ? { from, to } : null;
}

/**
 * Take-offs and landings as recency sees them: recorded here, demonstrated here as an instructor, logged, and read in
 * from a logbook. Each landing recorded here follows one take-off by the same pilot; a go-around is neither. Night is
 * told by the sun at the instant it ended, by the rule given.
 * @param who one pilot, or everybody since a day: then a day of alike landings stands as one row
 */
async function flying(
  who: { pilotId: string } | { since: string },
  night: NightRule,
  t?: Transaction,
): Promise<Map<string, TypedEvent[]>> {
  const places = await aerodromes(t);
  const at = new Map(places.map((a) => [a.ident, a]));
  const one = 'pilotId' in who;
  const of = new Map<string, TypedEvent[]>();
  const add = (pilotId: string, events: TypedEvent[]) => {
    const all = of.get(pilotId);
    if (all) all.push(...events);
    else of.set(pilotId, events);
  };
  const landed = (pilotId: string, l: FlyingRow) => {
    const [tailwheel, demonstration] = [l.tailwheel, l.shown];
    // By the sun of where it was made; an aerodrome that is not known any more is looked at as home.
    const place = at.get(l.aerodrome ?? '') ?? places[0];
    const dark = (instant: string | null): boolean =>
      instant !== null && place !== undefined && isNight(instant, place, night);
    const off = l.offSurface ?? l.surface;
    add(pilotId, [
      {
        date: l.flownOn,
        typeCode: l.code,
        class: classOf(l.engines, off),
        tailwheel,
        surface: off,
        night: dark(l.offAt),
        intervention: l.level,
        demonstration,
        recorded: true,
        times: l.n,
        id: `${l.id}:off`,
        kind: 'takeoff',
      },
      {
        date: l.flownOn,
        typeCode: l.code,
        class: classOf(l.engines, l.surface),
        tailwheel,
        surface: l.surface,
        night: dark(l.at),
        intervention: l.level,
        demonstration,
        recorded: true,
        times: l.n,
        id: l.id,
        kind: 'landing',
        fullStop: l.kind === 'full-stop',
      },
    ]);
  };
  const pilotId = one ? who.pilotId : null;
  const since = one ? '' : who.since;
  if (one) for (const l of await ask.flownByPilot.all({ pilotId: who.pilotId }, t)) landed(who.pilotId, l);
  else for (const [id, l] of await recordedSince(since, alwaysDay(places), t)) landed(id, l);
  const shown = one ? await ask.shownBy.all({ pilotId }, t) : await ask.shownSince.all({ since }, t);
  for (const l of shown) landed(l.pilotId ?? '', l);
  const logged = one ? await ask.loggedBy.all({ pilotId }, t) : await ask.loggedSince.all({ since }, t);
  const imported = one ? await ask.importedBy.all({ pilotId }, t) : await ask.importedSince.all({ since }, t);
  for (const f of logged)
    add(
      f.pilotId,
      loggedEvents(
        {
          id: f.id,
          date: f.flownOn,
          takeoffs: f.takeoffs,
          landings: f.landings,
          fullStops: f.fullStops,
          night: f.night,
          surface: f.surface,
          ...(f.offNight === null ? {} : { offNight: f.offNight }),
          ...(f.offSurface === null ? {} : { offSurface: f.offSurface }),
        },
        { typeCode: f.code, engines: f.engines, tailwheel: f.tailwheel },
      ),
    );
  for (const f of imported) {
    const inIt = { typeCode: f.code ?? '', engines: f.engines, tailwheel: f.tailwheel };
    add(f.pilotId, [
      ...loggedEvents(
        {
          id: `${f.id}:day`,
          date: f.flownOn,
          takeoffs: f.takeoffsDay,
          landings: f.landingsDay,
          fullStops: f.fullStopsDay,
          night: false,
          surface: f.surface,
        },
        inIt,
      ),
      ...loggedEvents(
        {
          id: `${f.id}:night`,
          date: f.flownOn,
          takeoffs: f.takeoffsNight,
          landings: f.landingsNight,
          fullStops: f.fullStopsNight,
          night: true,
          surface: f.surface,
        },
        inIt,
      ),
    ]);
  }
  for (const events of of.values())
    if (one || !events.every((e, i) => i === 0 || (events[i - 1]?.date ?? '') <= e.date))
      events.sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.id < b.id ? -1 : 1));
  return of;
}

/**
 * What was recorded of everybody since a day, a day of alike landings as one row. It is read out of one index, gathered
 * by pilot in the database; the type is that of the checkout, or of the flight where a second pilot has none.
 */
async function recordedSince(
  since: string,
  day: { from: string; to: string } | null,
  t?: Transaction,
): Promise<[string, FlyingRow][]> {
  const types = new Map(
    (
      await Checkouts.find(
        { pick: ['id'], with: { typeVersion: { pick: ['engines', 'tailwheel'], with: { type: ['code'] } } } },
        t,
      )
    ).map((c) => [c.id, c]),
  );
  const found = await ask.flownSince.all({ since, dayFrom: day?.from ?? null, dayTo: day?.to ?? null }, t);
  return [
    ...found.flatMap((p) =>
      p.days.flatMap(
        ([flownOn, checkout, kind, surface, level, shown, at, offSurface, offAt, aerodrome, n]): [
          string,
          FlyingRow,
        ][] => {
          const type = types.get(checkout)?.typeVersion;
          if (!type) return [];
          const id = `${p.pilotId} ${flownOn} ${kind} ${level ?? ''} ${at ?? ''} ${offSurface ?? ''} ${offAt ?? ''} ${aerodrome ?? ''}`;
          const { engines, tailwheel } = type;
          // Written out: copied from an object, each of these thousands of rows costs ten times as much.
          const row: FlyingRow = {
            id,
            flownOn,
            code: type.type.code,
            engines,
            tailwheel,
            kind,
            surface,
            level,
            shown: shown === 1,
            at,
            offSurface,
            offAt,
            aerodrome,
            n,
          };
          return [[p.pilotId, row]];
        },
      ),
    ),
    ...(await ask.flownAlone.all({ since }, t)).map((l): [string, FlyingRow] => [l.pilotId, l]),
  ];
}

/** Night as the home pack means it for recent experience. */
export async function homeNight(t?: Transaction): Promise<NightRule> {
  const house = await newestContent('house', 'house', t);
  const pack = house ? await newestContent('pack', house.body.homePack, t) : null;
  return pack?.body.night.recency ?? { by: 'twilight', citation: 'civil twilight' };
}

/** Take-offs and landings of one pilot, oldest first. */
export async function flyingOf(pilotId: string, t?: Transaction, night?: NightRule): Promise<TypedEvent[]> {
  return (await flying({ pilotId }, night ?? (await homeNight(t)), t)).get(pilotId) ?? [];
}
/** Of everybody, since a day, read afresh. */
export const flyingSince = (since: string, night: NightRule, t?: Transaction): Promise<Map<string, TypedEvent[]>> =>
  flying({ since }, night, t);

type Marks = RowOf<typeof ask.flyingMarks>;
const marksNow = async (): Promise<Marks> =>
  (await ask.flyingMarks.one()) ?? { event: 0, log: 0, struck: 0, imports: '', others: '' };
/** What is read to know what everybody flew. */
export const FLYING_TABLES = [
  CaptureEvents,
  Landings,
  Sorties,
  Checkouts,
  CheckoutMoves,
  Types,
  TypeVersions,
  Users,
  LoggedFlights,
  StruckFlights,
  LogbookFlights,
  LogbookImports,
  Erasures,
  ContentVersions,
];
interface Flying {
  of: Map<string, TypedEvent[]>;
  marks: Marks;
  place: string;
}
const placeNow = async (): Promise<string> =>
  (await aerodromes()).map((a) => `${a.ident} ${a.latitudeDeg} ${a.longitudeDeg}`).join(', ');
async function readFlying(since: string, night: NightRule): Promise<Flying> {
  const [marks, place] = [await marksNow(), await placeNow()];
  return { of: await flying({ since }, night), marks, place };
}
/** More pilots than this changed: reading everybody is quicker than one by one. */
const FEW = 40;
/** When something was recorded, logged or read in, only the pilots it concerns are read again. */
async function flyingOn(before: Flying, since: string, night: NightRule): Promise<Flying> {
  const [marks, place] = [await marksNow(), await placeNow()];
  const was = before.marks;
  const added =
    before.place === place &&
    was.others === marks.others &&
    was.event <= marks.event &&
    was.log <= marks.log &&
    was.struck <= marks.struck;
  const changed = added ? await changedPilots(was, marks) : null;
  if (!changed || changed.length > FEW) return readFlying(since, night);
  const of = new Map(before.of);
  for (const pilotId of changed)
    of.set(
      pilotId,
      (await flyingOf(pilotId, undefined, night)).filter((e) => e.date >= since),
    );
  return { of, marks, place };
}
/**
 * Of everybody, since a day, kept in memory. What it rests on is append-only, so the highest row numbers tell what was
 * added.
 */
const keptFlying = derived({
  name: 'people.flying',
  dependsOn: FLYING_TABLES,
  key: (since: string, night: NightRule) => `${since} ${JSON.stringify(night)}`,
  most: 4,
  read: readFlying,
  further: flyingOn,
});
export const flyingKept = async (since: string, night: NightRule): Promise<Map<string, TypedEvent[]>> =>
  (await keptFlying(since, night)).of;
/**
 * Whose flying something was added to since: the pilot of a flight, the second one, the instructor who showed, who
 * logged or read in.
 */
async function changedPilots(from: Marks, to: Marks): Promise<string[]> {
  const found = await ask.flyingChanged.all({
    event: from.event,
    log: from.log,
    struck: from.struck,
    imports: from.imports === to.imports ? 0 : 1,
  });
  return found.flatMap((f) => f.p ?? []);
}
