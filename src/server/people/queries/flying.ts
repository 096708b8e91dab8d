import type { Transaction } from 'sequelize';
import { type Place, isNight, sunTimes } from '@/core/sun';
import { type TypedEvent, classOf, loggedEvents } from '@/core/recency';
import type { NightRule } from '@/domain/recency';
import { homeAerodrome, newestContent } from '../../rules/content';
import { inData } from '../../floor/data-folder';
import { row, rows } from '../../floor/connection';

interface FlyingRow {
  id: string;
  flown_on: string;
  code: string;
  engines: number;
  tailwheel: number;
  kind: string;
  surface: 'land' | 'water';
  level: number | null;
  shown: number;
  at: string | null;
  /** Where and when the take-off before it was; an instant nobody knows is never night. */
  off_surface: 'land' | 'water' | null;
  off_at: string | null;
  n: number;
}
const JOINS =
  'JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id';
/** Columns of a landing as recency sees it. */
const FLOWN = 'l.flown_on, ty.code, tv.engines, tv.tailwheel, l.kind, l.surface';
const MOMENTS = 'l.ended_at AS at, l.off_surface, l.off_at';
const LANDED = "l.kind NOT IN ('go-around', 'low-pass')";

/** Hours of the day, UTC, in which it is never night at a place on any day of the year; null = there are none. */
function alwaysDay(place: Place): { from: string; to: string } | null {
  const all = ['2026-06-21', '2026-12-21'].map((d) => sunTimes(d, place));
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
  const place = await homeAerodrome(t);
  const one = 'pilotId' in who;
  const of = new Map<string, TypedEvent[]>();
  const add = (pilotId: string, events: TypedEvent[]) => {
    const all = of.get(pilotId);
    if (all) all.push(...events);
    else of.set(pilotId, events);
  };
  const landed = (pilotId: string, l: FlyingRow) => {
    const [tailwheel, demonstration] = [l.tailwheel === 1, l.shown === 1];
    const dark = (at: string | null): boolean => at !== null && isNight(at, place, night);
    const off = l.off_surface ?? l.surface;
    add(pilotId, [
      {
        date: l.flown_on,
        typeCode: l.code,
        class: classOf(l.engines, off),
        tailwheel,
        surface: off,
        night: dark(l.off_at),
        intervention: l.level,
        demonstration,
        recorded: true,
        times: l.n,
        id: `${l.id}:off`,
        kind: 'takeoff',
      },
      {
        date: l.flown_on,
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
  if (one) {
    const recorded = await rows<FlyingRow>(
      `SELECT l.id, ${FLOWN}, l.level, l.shown, ${MOMENTS}, 1 AS n
       FROM landings l ${JOINS} WHERE l.pilot_id = :pilotId AND ${LANDED}`,
      who,
      t,
    );
    for (const l of recorded) landed(who.pilotId, l);
  } else for (const [pilotId, l] of await recordedSince(who.since, alwaysDay(place), t)) landed(pilotId, l);
  const shown = await rows<FlyingRow & { pilot_id: string }>(
    `SELECT u.pilot_id, l.id || ':shown' AS id, ${FLOWN}, 0 AS level, 0 AS shown, ${MOMENTS}, 1 AS n
     FROM landings l INDEXED BY landings_shown ${JOINS} JOIN users u ON u.id = l.author
     WHERE l.landing_class = 'demonstration' AND ${one ? 'u.pilot_id = :pilotId' : 'u.pilot_id IS NOT NULL AND l.flown_on >= :since'} AND ${LANDED}`,
    who,
    t,
  );
  for (const l of shown) landed(l.pilot_id, l);
  const newest =
    'JOIN type_versions tv ON tv.type_id = ty.id AND tv.version = (SELECT MAX(version) FROM type_versions WHERE type_id = ty.id)';
  const logged = await rows<{
    pilot_id: string;
    id: string;
    flown_on: string;
    code: string;
    engines: number;
    tailwheel: number;
    takeoffs: number;
    landings: number;
    full_stops: number;
    night: number;
    surface: 'land' | 'water';
    off_night: number | null;
    off_surface: 'land' | 'water' | null;
  }>(
    `SELECT f.pilot_id, f.id, f.flown_on, f.type_code AS code, tv.engines, tv.tailwheel, f.takeoffs, f.landings, f.full_stops,
       f.night, f.surface, f.off_night, f.off_surface
     FROM flight_log f JOIN types ty ON ty.code = f.type_code ${newest}
     WHERE ${one ? 'f.pilot_id = :pilotId' : 'f.flown_on >= :since'} AND NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id)`,
    who,
    t,
  );
  const imported = await rows<{
    pilot_id: string;
    id: string;
    flown_on: string;
    code: string | null;
    engines: number;
    tailwheel: number;
    surface: 'land' | 'water';
    dual: number;
    takeoffs_day: number;
    takeoffs_night: number;
    landings_day: number;
    landings_night: number;
    full_stops_day: number;
    full_stops_night: number;
  }>(
    `SELECT f.pilot_id, f.id, f.flown_on, f.type_code AS code, f.engines, f.tailwheel, f.surface, f.dual, f.takeoffs_day, f.takeoffs_night, f.landings_day, f.landings_night, f.full_stops_day, f.full_stops_night FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id
     WHERE i.taken_back_at IS NULL AND ${one ? 'f.pilot_id = :pilotId' : 'f.flown_on >= :since'}`,
    who,
    t,
  );
  for (const f of logged)
    add(
      f.pilot_id,
      loggedEvents(
        {
          id: f.id,
          date: f.flown_on,
          takeoffs: f.takeoffs,
          landings: f.landings,
          fullStops: f.full_stops,
          night: f.night === 1,
          surface: f.surface,
          ...(f.off_night === null ? {} : { offNight: f.off_night === 1 }),
          ...(f.off_surface === null ? {} : { offSurface: f.off_surface }),
        },
        { typeCode: f.code, engines: f.engines, tailwheel: f.tailwheel === 1 },
      ),
    );
  for (const f of imported) {
    const inIt = { typeCode: f.code ?? '', engines: f.engines, tailwheel: f.tailwheel === 1 };
    add(f.pilot_id, [
      ...loggedEvents(
        {
          id: `${f.id}:day`,
          date: f.flown_on,
          takeoffs: f.takeoffs_day,
          landings: f.landings_day,
          fullStops: f.full_stops_day,
          night: false,
          surface: f.surface,
        },
        inIt,
      ),
      ...loggedEvents(
        {
          id: `${f.id}:night`,
          date: f.flown_on,
          takeoffs: f.takeoffs_night,
          landings: f.landings_night,
          fullStops: f.full_stops_night,
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
      await rows<{ id: string; code: string; engines: number; tailwheel: number }>(
        'SELECT c.id, ty.code, tv.engines, tv.tailwheel FROM checkouts c JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id',
        {},
        t,
      )
    ).map((c) => [c.id, c]),
  );
  const edge = (at: string): string =>
    day === null
      ? at
      : `CASE WHEN substr(${at}, 12, 5) > :dayFrom AND substr(${at}, 12, 5) < :dayTo THEN NULL ELSE ${at} END`;
  const found = await rows<{ pilot_id: string; days: string }>(
    `SELECT pilot_id, json_group_array(json_array(flown_on, checkout_id, kind, surface, level, shown, at, off_surface, off_at, n)) AS days FROM (
       SELECT l.flown_on, l.pilot_id, l.checkout_id, l.kind, l.surface, l.level, l.shown, ${edge('l.ended_at')} AS at, l.off_surface, ${edge('l.off_at')} AS off_at, COUNT(*) AS n FROM landings l WHERE l.flown_on >= :since AND l.checkout_id IS NOT NULL AND ${LANDED} GROUP BY 1, 2, 3, 4, 5, 6, 7, 8, 9, 10
     ) GROUP BY pilot_id`,
    { since, dayFrom: day?.from, dayTo: day?.to },
    t,
  );
  const alone = await rows<FlyingRow & { pilot_id: string }>(
    `SELECT l.pilot_id, l.id, ${FLOWN}, l.level, l.shown, ${MOMENTS}, 1 AS n
     FROM landings l ${JOINS} WHERE l.flown_on >= :since AND l.checkout_id IS NULL AND ${LANDED}`,
    { since },
    t,
  );
  return [
    ...found.flatMap((p) =>
      (
        JSON.parse(p.days) as [
          string,
          string,
          string,
          'land' | 'water',
          number | null,
          number,
          string | null,
          'land' | 'water' | null,
          string | null,
          number,
        ][]
      ).flatMap(
        ([flown_on, checkout, kind, surface, level, shown, at, off_surface, off_at, n]): [string, FlyingRow][] => {
          const type = types.get(checkout);
          return type
            ? [
                [
                  p.pilot_id,
                  {
                    id: `${p.pilot_id} ${flown_on} ${kind} ${level ?? ''} ${at ?? ''} ${off_surface ?? ''} ${off_at ?? ''}`,
                    flown_on,
                    code: type.code,
                    engines: type.engines,
                    tailwheel: type.tailwheel,
                    kind,
                    surface,
                    level,
                    shown,
                    at,
                    off_surface,
                    off_at,
                    n,
                  },
                ],
              ]
            : [];
        },
      ),
    ),
    ...alone.map((l): [string, FlyingRow] => [l.pilot_id, l]),
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

interface Marks {
  event: number;
  log: number;
  struck: number;
  imports: string;
  others: string;
}
declare global {
  var __jeitoFlying: { key: string; since: string; marks: Marks; of: Map<string, TypedEvent[]> } | undefined;
}
/** More pilots than this changed: reading everybody is quicker than one by one. */
const FEW = 40;
/**
 * Of everybody, since a day, kept in memory: when something was recorded, logged or read in, only the pilots it
 * concerns are read again. What it rests on is append-only, so the highest row numbers tell.
 */
export async function flyingKept(since: string, night: NightRule): Promise<Map<string, TypedEvent[]>> {
  const key = `${inData('jeito.sqlite')} ${JSON.stringify(night)} ${(await homeAerodrome()).latitudeDeg} ${(await homeAerodrome()).longitudeDeg}`;
  const found = await row<Marks>(
    `SELECT COALESCE((SELECT MAX(rowid) FROM capture_events), 0) AS event, COALESCE((SELECT MAX(rowid) FROM flight_log), 0) AS log, COALESCE((SELECT MAX(rowid) FROM flight_log_struck), 0) AS struck, (SELECT COUNT(*) || ':' || COUNT(taken_back_at) FROM logbook_imports) AS imports,
       (SELECT COUNT(*) FROM erasures) || ':' || (SELECT COUNT(*) FROM checkout_moves) || ':' || (SELECT COUNT(*) FROM type_versions) || ':' || (SELECT COUNT(pilot_id) FROM users) AS others`,
  );
  const marks = found ?? { event: 0, log: 0, struck: 0, imports: '', others: '' };
  const kept = globalThis.__jeitoFlying;
  const usable =
    kept?.key === key &&
    kept.since <= since &&
    kept.marks.others === marks.others &&
    kept.marks.event <= marks.event &&
    kept.marks.log <= marks.log &&
    kept.marks.struck <= marks.struck
      ? kept
      : null;
  if (usable && JSON.stringify(usable.marks) === JSON.stringify(marks)) return usable.of;
  const changed = usable ? await changedPilots(usable.marks, marks) : null;
  if (!usable || !changed || changed.length > FEW) {
    const of = await flying({ since }, night);
    globalThis.__jeitoFlying = { key, since, marks, of };
    return of;
  }
  const of = new Map(usable.of);
  for (const pilotId of changed)
    of.set(
      pilotId,
      (await flyingOf(pilotId, undefined, night)).filter((e) => e.date >= usable.since),
    );
  globalThis.__jeitoFlying = { key, since: usable.since, marks, of };
  return of;
}
/**
 * Whose flying something was added to since: the pilot of a flight, the second one, the instructor who showed, who
 * logged or read in.
 */
async function changedPilots(from: Marks, to: Marks): Promise<string[]> {
  const found = await rows<{ p: string | null }>(
    `SELECT c.pilot_id AS p FROM capture_events e JOIN sorties s ON s.id = e.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE e.rowid > :event
     UNION SELECT s.second_pilot_id FROM capture_events e JOIN sorties s ON s.id = e.sortie_id WHERE e.rowid > :event
     UNION SELECT u.pilot_id FROM capture_events e JOIN users u ON u.id = e.author WHERE e.rowid > :event
     UNION SELECT pilot_id FROM flight_log WHERE rowid > :log
     UNION SELECT f.pilot_id FROM flight_log_struck x JOIN flight_log f ON f.id = x.log_id WHERE x.rowid > :struck
     ${from.imports === to.imports ? '' : 'UNION SELECT pilot_id FROM logbook_imports'}`,
    { event: from.event, log: from.log, struck: from.struck },
  );
  return found.flatMap((f) => f.p ?? []);
}
