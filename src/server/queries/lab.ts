import { airToday } from '@/core/approach';
import { convertReference, stationWind } from '@/core/wind';
import type { TypeSheet } from '@/domain/sheet';
import { type CurrentUser, may } from '../auth/permissions';
import { nowIso } from '../clock';
import { homeAerodrome } from '../content';
import { type CheckoutHead, checkoutHead, checkoutRecord } from './checkout';
import { hangar } from './hangar';
import { eyesOf, hoursOf } from './pilot';

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
  wind: { fromDeg: number; kt: number; words: string };
  runwayEnd: string | null;
  oatC: number;
  sigma: number;
}
type Query = Readonly<Record<string, string | string[] | undefined>>;
const text = (q: Query, key: string): string | null => (typeof q[key] === 'string' && q[key] !== '' ? q[key] : null);

/**
 * What a lab page starts from: the two sheets, today's wind and air, and all that a checkout knows when the page is
 * reached from one.
 * @returns null when the checkout is not this user's to see, or a type does not exist
 */
export async function labFacts(
  user: CurrentUser,
  query: Query,
  fallback: { type: string; old: string },
): Promise<LabFacts | null> {
  const checkoutId = text(query, 'checkout');
  const head = checkoutId === null ? null : await checkoutHead(checkoutId);
  if (checkoutId !== null && (!head || !may.viewCheckout(user, head))) return null;
  const types = await hangar();
  const sheets = new Map<string, LabSheet>(
    types.map((t) => [t.code, { key: t.code, sheet: t.sheet, version: t.version }]),
  );
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
  const type = sheets.get(text(query, 'type') ?? head?.registration ?? fallback.type);
  const old = sheets.get(text(query, 'old') ?? flown[0]?.typeCode ?? fallback.old);
  if (!type || !old) return null;
  const aerodrome = await homeAerodrome();
  const now = nowIso();
  const observed = stationWind(aerodrome.ident, now);
  const latest = head
    ? [...(await checkoutRecord(head)).sorties].reverse().find((s) => s.brief)?.brief?.choices
    : undefined;
  const briefed =
    latest?.wind && latest.wind.fromDeg !== null && latest.flownOn === now.slice(0, 10) ? latest.wind : null;
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
            words: `from the brief of ${latest?.flownOn ?? ''}`,
          }
        : observed && observed.fromDeg !== null
          ? {
              fromDeg: observed.fromDeg,
              kt: observed.kt,
              words: `from the simulated station at ${observed.observedAt.slice(11, 16)} UTC`,
            }
          : { fromDeg: 360, kt: 0, words: 'calm' },
    runwayEnd: latest?.runwayEnd ?? null,
    oatC,
    sigma: air.sigma ?? 1,
  };
}
