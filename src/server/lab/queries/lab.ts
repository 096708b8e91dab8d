import { localDate, localTime } from '@/core/format';
import { airToday } from '@/core/approach';
import { convertReference, stationWind } from '@/core/wind';
import type { LabPage } from '@/domain/lab-pages';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { aerodromeAt } from '../../rules/content';
import { checkoutRecord } from '../../checkout/queries/record';
import { type CheckoutHead, checkoutHead } from '../../checkout/queries/head';
import { hangar } from '../../hangar/queries/hangar';
import { eyesOf, hoursOf } from '../../people/queries/pilot';

export interface LabSheet {
  key: string;
  sheet: TypeSheet;
  version: number;
}
export interface LabFacts {
  head: CheckoutHead | null;
  choices: { key: string; name: string }[];
  type: LabSheet;
  old: LabSheet;
  eyes: { now: Awaited<ReturnType<typeof eyesOf>>; old: Awaited<ReturnType<typeof eyesOf>> };
  /** Mean wind, true, with where it comes from. */
  wind: { fromDeg: number; kt: number; gustKt: number | null; words: string };
  /** Of the last brief of the checkout. */
  instructorLimitKt: number | null;
  /** Where the checkout’s last brief is flown; home without one. */
  aerodrome: Aerodrome;
  runwayEnd: string | null;
  oatC: number;
  sigma: number;
}
/** What a page of the lab is about. */
export type LabSubject = 'picture' | 'circuit' | 'taxi' | LabPage;

const noseAheadDeg = (s: TypeSheet): number =>
  [...(s.sight?.profile ?? [])].sort((a, b) => Math.abs(a.azimuthDeg) - Math.abs(b.azimuthDeg))[0]?.depressionDeg ?? 90;
const WIDER_THAN_ANY_M = 100;
/** Turns by steering alone within a taxiway's corner: the axle's least radius is L / tan δ. */
const cornersByTail = ({ gear }: TypeSheet): boolean =>
  gear.layout === 'tailwheel' &&
  gear.steerDeg !== null &&
  gear.wheelbaseM.value / Math.tan((gear.steerDeg.value * Math.PI) / 180) <= CORNER_M;
const CORNER_M = 20;
const lightTailwheel = (s: TypeSheet): number =>
  (s.gear.layout === 'tailwheel' ? 1e6 : 0) - s.masses.maxTakeoffKg.value;
/** How well a type shows a subject: of a school's own types the page opens with the one that shows it best. */
const SHOWS: Record<LabSubject, (s: TypeSheet) => number> = {
  // The nose that hides most; the fastest on downwind; the longest tail that is steered round a corner.
  picture: (s) => -noseAheadDeg(s),
  circuit: (s) => s.approach[0]?.speed.value ?? 0,
  taxi: (s) => s.gear.wheelbaseM.value + (cornersByTail(s) ? WIDER_THAN_ANY_M : 0),
  ground: lightTailwheel,
  'take-off': lightTailwheel,
  touch: lightTailwheel,
  crosswind: lightTailwheel,
  'side-picture': lightTailwheel,
  slip: lightTailwheel,
  // The slowest of those with flap.
  'slow-approach': (s) =>
    -Math.min(...s.stalls.map((x) => x.speed.value)) + (s.flapSteps.length > 1 ? WIDER_THAN_ANY_M : 0),
};
/** What most pilots come from: the lightest nosewheel type, or the lightest there is. */
const usual = (s: TypeSheet): number => (s.gear.layout === 'nosewheel' ? 0 : 1e6) + s.masses.maxTakeoffKg.value;
const best = (sheets: readonly LabSheet[], by: (s: TypeSheet) => number): LabSheet | undefined =>
  [...sheets].sort((a, b) => by(b.sheet) - by(a.sheet))[0];

type Query = Readonly<Record<string, string | string[] | undefined>>;
const text = (q: Query, key: string): string | null => (typeof q[key] === 'string' && q[key] !== '' ? q[key] : null);

/**
 * What a lab page starts from: the two sheets, today's wind and air, and all that a checkout knows when the page is
 * reached from one.
 * @returns null when the checkout is not this user's to see, or a type asked for does not exist; 'no-type' in a school
 * without any type sheet
 */
export async function labFacts(
  user: CurrentUser,
  query: Query,
  subject: LabSubject,
): Promise<LabFacts | 'no-type' | null> {
  const checkoutId = text(query, 'checkout');
  const head = checkoutId === null ? null : await checkoutHead(checkoutId);
  if (checkoutId !== null && (!head || !may.viewCheckout(user, head))) return null;
  const types = await hangar();
  if (types.length === 0) return 'no-type';
  const sheets = new Map<string, LabSheet>(
    types.map((t) => [t.code, { key: t.code, sheet: t.sheet, version: t.version }]),
  );
  const own = [...sheets.values()];
  for (const t of types)
    for (const a of t.airframes)
      sheets.set(a.registration, {
        key: a.registration,
        sheet: { ...a.effective, name: `${a.registration} ${t.sheet.name}` },
        version: t.version,
      });
  // A checkout runs under its own pinned version.
  if (head)
    sheets.set(head.registration, {
      key: head.registration,
      sheet: { ...head.sheet, name: `${head.registration} ${head.typeName}` },
      version: types.find((t) => t.code === head.typeCode)?.version ?? head.typeVersion,
    });
  const flown = head ? (await hoursOf(head.pilotId)).filter((h) => h.typeCode !== head.typeCode) : [];
  const sheetOf = (key: string | null | undefined, otherwise: () => LabSheet | undefined): LabSheet | undefined =>
    key == null ? otherwise() : sheets.get(key);
  const type = sheetOf(text(query, 'type') ?? head?.registration, () => best(own, SHOWS[subject]));
  if (!type) return null;
  const others = own.filter((s) => s.key !== type.key);
  const old = sheetOf(text(query, 'old') ?? flown.find((h) => sheets.has(h.typeCode))?.typeCode, () =>
    best(others.length > 0 ? others : own, (s) => -usual(s)),
  );
  if (!old) return null;
  const now = nowIso();
  const lesson = head ? [...(await checkoutRecord(head)).sorties].reverse().find((s) => s.brief) : undefined;
  const latest = lesson?.brief?.choices;
  const aerodrome = await aerodromeAt(lesson?.aerodrome);
  const observed = stationWind(aerodrome.ident, now);
  const briefed =
    latest?.wind && latest.wind.fromDeg !== null && latest.flownOn === localDate(now, aerodrome.timeZone)
      ? latest.wind
      : null;
  const oatC = latest?.oatC ?? 15;
  const air = airToday(aerodrome.elevationFt, { qnhHpa: latest?.qnhHpa ?? 1013.25, oatC });
  const elsewhere = head && head.registration !== type.key && head.typeCode !== type.key;
  return {
    head,
    type,
    old,
    choices: [
      ...(head ? [{ key: head.registration, name: `${head.registration} ${head.typeName}` }] : []),
      ...types.map((t) => ({ key: t.code, name: t.sheet.name })),
      ...(text(query, 'type') && !types.some((t) => t.code === type.key) && type.key !== head?.registration
        ? [{ key: type.key, name: type.sheet.name }]
        : []),
    ],
    eyes: {
      now: head && !elsewhere ? await eyesOf(head.pilotId, head.typeCode) : [],
      old: head ? await eyesOf(head.pilotId, old.sheet.code) : [],
    },
    wind:
      briefed?.fromDeg != null
        ? {
            fromDeg: convertReference(briefed.fromDeg, briefed.reference, 'true', aerodrome.variationDeg),
            kt: briefed.kt,
            gustKt: briefed.gustKt,
            words: `from the brief of ${latest?.flownOn ?? ''}`,
          }
        : observed && observed.fromDeg !== null
          ? {
              fromDeg: observed.fromDeg,
              kt: observed.kt,
              gustKt: observed.gustKt,
              words: `from the simulated station at ${localTime(observed.observedAt, aerodrome.timeZone)}`,
            }
          : { fromDeg: 360, kt: 0, gustKt: null, words: 'calm' },
    aerodrome,
    runwayEnd: latest?.runwayEnd ?? null,
    instructorLimitKt: latest?.instructorLimitKt ?? null,
    oatC,
    sigma: air.sigma ?? 1,
  };
}
