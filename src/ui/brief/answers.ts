import { crosswindSentences } from '@/core/approach';
import { fixed, hoursText, list, metresUp, withUnit } from '@/core/format';
import type { Shown } from './blocks';

const needed = (name: string, r: Shown['result']['takeoff']): string =>
  r === null
    ? `${name}: no runway chosen`
    : r.words
      ? `${name}: ${r.words}`
      : `${name} ${metresUp(r.need.over50M)}${(r.need.marginM ?? 0) < 0 ? `, ${metresUp(-(r.need.marginM ?? 0))} too short` : ''}`;

const said = (s: Shown) => crosswindSentences(s.result, s.choices.runwayEnd, s.pilotName.split(' ')[0] ?? s.pilotName);
const begun = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What a folded block of the brief says in one line; none where its heading is all there is to say. */
export const ANSWERS: Readonly<Record<string, (s: Shown) => string | undefined>> = {
  path: ({ result }) =>
    result.gates.map((g) => `${g.name} ${g.target === null ? 'no speed' : withUnit(g.target, result.unit)}`).join(', '),
  gates: (s) => ANSWERS.path?.(s),
  wind: (s) => said(s).lead,
  limits: (s) => said(s).verdict,
  habits: ({ result }) =>
    result.habits?.length ? `${begun(list(result.habits.slice(0, 3).map((h) => h.name)))}.` : undefined,
  runway: ({ result }) => `${needed('Take-off', result.takeoff)}; ${needed('landing', result.landing)}.`,
  air: ({ result: { air } }) =>
    air.densityAltFt === null
      ? `${list(air.missing)} not known.`
      : `Density altitude ${withUnit(Math.round(air.densityAltFt / 10) * 10, 'ft')}.`,
  load: ({ result }) => {
    const of = `${withUnit(result.massKg, 'kg')} of ${withUnit(result.maxMassKg, 'kg')}`;
    if (!result.loading) return `${of}; balance not known.`;
    const bad = [result.loading.dual, result.loading.solo].some((l) => !l.allInside || l.overMax.length > 0);
    return `${of}; ${bad || result.loading.trim?.outside ? 'outside the envelope or a limit: open it' : 'inside the envelope'}.`;
  },
  fuel: ({ result: { fuel } }) =>
    `${fuel.circuits.circuits} circuits fit; ${hoursText(fuel.endurance.usableMin)} to the reserve.`,
  goaround: ({ house }) => list(house.triggers),
  plan: ({ choices }) => (choices.plan ? `${choices.plan.length} steps.` : undefined),
  schools: ({ schools }) => list(schools.map((s) => s.name)),
  airspace: ({ aerodrome: { airspace } }) =>
    airspace.length === 0 ? 'None entered.' : `${list(airspace.map((a) => `${a.name} from ${fixed(a.floorFt)} ft`))}.`,
};
