import type { Transaction } from 'sequelize';
import { type Place, isNight, sunTimes } from '@/core/sun';
import { type TypedEvent, classOf, loggedEvents } from '@/core/recency';
import type { NightRule } from '@/domain/recency';
import { homeAerodrome, newestContent } from '../content';
import { rows } from '../db/connection';

interface FlyingRow { pilot_id: string; id: string; flown_on: string; code: string; engines: number; tailwheel: number; kind: string; surface: 'land' | 'water'; intervention: number | null; demonstration: number; at: string | null; n: number }
const FROM = 'FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id';
const AT = "COALESCE(json_extract(l.captured, '$.endedAt'), l.saved_at)";
const LANDED = "l.kind NOT IN ('go-around', 'low-pass')";

/** Hours of the day, UTC, in which it is never night at a place on any day of the year; null = there are none. */
function alwaysDay(place: Place): { from: string; to: string } | null {
  const all = ['2026-06-21', '2026-12-21'].map((d) => sunTimes(d, place));
  if (all.some((t) => t.sunrise === null || t.sunset === null)) return null;
  const from = all.map((t) => (t.sunrise ?? '').slice(11, 16)).sort().at(-1) ?? '';
  const to = all.map((t) => (t.sunset ?? '').slice(11, 16)).sort()[0] ?? '';
  return from < to ? { from, to } : null;
}

/**
 * Take-offs and landings as recency sees them: recorded here, demonstrated here as an instructor, logged, and read in from a logbook. Each landing recorded
 * here follows one take-off by the same pilot; a go-around is neither. Night is told by the sun at the instant it ended, by the rule given.
 * @param who one pilot, or 'everybody' since a day: then a day of alike landings stands as one row
 */
async function flying(who: { pilotId: string } | { since: string }, night: NightRule, t?: Transaction): Promise<Map<string, TypedEvent[]>> {
  const place = await homeAerodrome(t);
  const one = 'pilotId' in who;
  const day = alwaysDay(place);
  const edge = day === null ? AT : `CASE WHEN substr(${AT}, 12, 5) > :dayFrom AND substr(${AT}, 12, 5) < :dayTo THEN NULL ELSE ${AT} END`;
  const columns = (pilot: string) => (one
    ? `${pilot} AS pilot_id, l.id, l.flown_on, ty.code, tv.engines, tv.tailwheel, l.kind, l.surface, ${edge} AS at, 1 AS n`
    : `${pilot} AS pilot_id, MAX(l.id) AS id, l.flown_on, ty.code, tv.engines, tv.tailwheel, l.kind, l.surface, ${edge} AS at, COUNT(*) AS n`);
  const help = "json_extract(l.captured, '$.intervention') AS intervention, json_extract(l.captured, '$.demonstration') AS demonstration";
  const group = one ? '' : 'GROUP BY 1, 3, 4, 7, 8, 9, 11, 12';
  const recorded = await rows<FlyingRow>(
    `SELECT ${columns('l.pilot_id')}, ${help} ${FROM} WHERE ${one ? 'l.pilot_id = :pilotId' : 'l.flown_on >= :since'} AND ${LANDED} ${group}`,
    { ...who, dayFrom: day?.from, dayTo: day?.to }, t,
  );
  const shown = await rows<FlyingRow>(
    `SELECT ${columns('u.pilot_id')}, 0 AS intervention, 0 AS demonstration ${FROM} JOIN users u ON u.id = l.author WHERE l.landing_class = 'demonstration' AND ${one ? 'u.pilot_id = :pilotId' : 'u.pilot_id IS NOT NULL AND l.flown_on >= :since'} AND ${LANDED} ${group}`,
    { ...who, dayFrom: day?.from, dayTo: day?.to }, t,
  );
  const newest = 'JOIN type_versions tv ON tv.type_id = ty.id AND tv.version = (SELECT MAX(version) FROM type_versions WHERE type_id = ty.id)';
  const logged = await rows<{ pilot_id: string; id: string; flown_on: string; code: string; engines: number; tailwheel: number; takeoffs: number; landings: number; full_stops: number; night: number; surface: 'land' | 'water' }>(
    `SELECT f.pilot_id, f.id, f.flown_on, f.type_code AS code, tv.engines, tv.tailwheel, f.takeoffs, f.landings, f.full_stops, f.night, f.surface FROM flight_log f JOIN types ty ON ty.code = f.type_code ${newest}
     WHERE ${one ? 'f.pilot_id = :pilotId' : 'f.flown_on >= :since'} AND NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id)`,
    who, t,
  );
  const imported = await rows<{ pilot_id: string; id: string; flown_on: string; code: string | null; engines: number; tailwheel: number; surface: 'land' | 'water'; dual: number; takeoffs_day: number; takeoffs_night: number; landings_day: number; landings_night: number; full_stops_day: number; full_stops_night: number }>(
    `SELECT f.pilot_id, f.id, f.flown_on, f.type_code AS code, f.engines, f.tailwheel, f.surface, f.dual, f.takeoffs_day, f.takeoffs_night, f.landings_day, f.landings_night, f.full_stops_day, f.full_stops_night FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id
     WHERE i.taken_back_at IS NULL AND ${one ? 'f.pilot_id = :pilotId' : 'f.flown_on >= :since'}`,
    who, t,
  );
  const of = new Map<string, TypedEvent[]>();
  const add = (pilotId: string, events: TypedEvent[]) => { const all = of.get(pilotId); if (all) all.push(...events); else of.set(pilotId, events); };
  const landed = (l: FlyingRow, suffix: string) => {
    const base = { date: l.flown_on, typeCode: l.code, class: classOf(l.engines, l.surface), tailwheel: l.tailwheel === 1, surface: l.surface, night: l.at !== null && isNight(l.at, place, night), intervention: l.intervention, demonstration: l.demonstration === 1, ...(l.n === 1 ? {} : { times: l.n }) };
    add(l.pilot_id, [{ ...base, id: `${l.id}${suffix}:off`, kind: 'takeoff' }, { ...base, id: `${l.id}${suffix}`, kind: 'landing', fullStop: l.kind === 'full-stop' }]);
  };
  for (const l of recorded) landed(l, '');
  for (const l of shown) landed(l, ':shown');
  for (const f of logged) add(f.pilot_id, loggedEvents({ id: f.id, date: f.flown_on, takeoffs: f.takeoffs, landings: f.landings, fullStops: f.full_stops, night: f.night === 1, surface: f.surface }, { typeCode: f.code, engines: f.engines, tailwheel: f.tailwheel === 1 }));
  for (const f of imported) {
    const inIt = { typeCode: f.code ?? '', engines: f.engines, tailwheel: f.tailwheel === 1 };
    add(f.pilot_id, [
      ...loggedEvents({ id: `${f.id}:day`, date: f.flown_on, takeoffs: f.takeoffs_day, landings: f.landings_day, fullStops: f.full_stops_day, night: false, surface: f.surface }, inIt),
      ...loggedEvents({ id: `${f.id}:night`, date: f.flown_on, takeoffs: f.takeoffs_night, landings: f.landings_night, fullStops: f.full_stops_night, night: true, surface: f.surface }, inIt),
    ]);
  }
  for (const events of of.values()) events.sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.id < b.id ? -1 : 1));
  return of;
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
/** Of everybody, since a day. */
export const flyingSince = (since: string, night: NightRule, t?: Transaction): Promise<Map<string, TypedEvent[]>> => flying({ since }, night, t);
