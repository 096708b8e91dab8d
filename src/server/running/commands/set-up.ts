import { createHash, randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import type { Transaction } from 'sequelize';
import { localDate } from '@/core/format';
import { magneticVariation } from '@/core/magnetic';
import type { House } from '@/domain/programme';
import { oppositeEnd, STRIPS_APART_M } from '@/domain/painted';
import { AerodromeForm, FirstChiefForm, PlaceForm } from '@/domain/set-up';
import type { Aerodrome } from '@/domain/sheet';
import { Pilots, Users } from '../../account/tables';
import { takeTry } from '../../floor/auth/limiter';
import { hashPassword } from '../../floor/auth/password';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { inData } from '../../floor/data-folder';
import { type Problem, type Result, problem, problemAt, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { putOwnVersion, saveContent } from '../../rules/commands/content';
import { aerodromes, homeZone, newestContent } from '../../rules/content';
import { contentList } from '../../rules/queries/content';
import { told } from '../sentences';

const file = (): string => inData('set-up.json');
const hashOf = (token: string): Buffer => createHash('sha256').update(token).digest();
const anybody = async (t?: Transaction): Promise<boolean> =>
  (await Users.first({ where: {}, pick: ['id'] }, t)) !== null;

/**
 * A link for whoever makes the first account, of which only the hash is kept; an earlier one ends.
 * @returns the token of the link; null when somebody can sign in already
 */
export async function newSetUpToken(): Promise<string | null> {
  if (await anybody()) return null;
  const token = randomBytes(18).toString('base64url');
  writeFileSync(file(), `${JSON.stringify({ hash: hashOf(token).toString('hex'), madeAt: nowIso() })}\n`, {
    mode: 0o600,
  });
  return token;
}

/** Whether this is the token of the link that was printed last, and nobody has used it. */
export async function setUpOpen(token: string): Promise<boolean> {
  if (!existsSync(file()) || (await anybody())) return false;
  let hash: string;
  try {
    ({ hash } = JSON.parse(readFileSync(file(), 'utf8')) as { hash: string });
  } catch {
    // A file that is cut or none of ours opens nothing: another link is made at the next start.
    return false;
  }
  const kept = Buffer.from(String(hash), 'hex');
  return kept.length === 32 && timingSafeEqual(kept, hashOf(token));
}

/** The first account: chief, instructor and pilot in one. The link ends with it. */
export async function makeFirstChief(
  token: string,
  form: unknown,
  from: string,
): Promise<Result<{ userId: string; sessionVersion: number }>> {
  const parsed = FirstChiefForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const wait = await takeTry('address', from);
  if (wait > 0) return problem('', told('too-many-tries', { seconds: wait }));
  if (!(await setUpOpen(token))) return problem('', told('link-used'));
  const d = parsed.data;
  const passwordHash = await hashPassword(d.password);
  const made = await write(async (t): Promise<Result<{ userId: string; sessionVersion: number }>> => {
    // Two at once: the first made it.
    if (await anybody(t)) return problem('', told('link-used'));
    const id = randomUUID();
    const createdAt = nowIso();
    await Pilots.insert(
      {
        id: `pilot-${id}`,
        name: d.name,
        massKg: d.massKg,
        experience: '',
        hours: 0,
        crosswindCredit: null,
        experienceSince: {},
        createdAt,
        certificate: d.certificate,
      },
      t,
    );
    await Users.insert(
      {
        id: `user-${id}`,
        email: d.email.toLowerCase(),
        name: d.name,
        passwordHash,
        roles: ['chief', 'instructor', 'pilot'],
        sessionVersion: 1,
        pilotId: `pilot-${id}`,
        massKg: d.massKg,
        authorised: [],
        ownCrosswindKt: null,
        createdAt,
        certificate: d.certificate,
        certificateUntil: null,
        closedAt: null,
        passwordGivenBy: null,
        passwordGivenAt: null,
        passwordOwnAt: createdAt,
      },
      t,
    );
    return { ok: true, userId: `user-${id}`, sessionVersion: 1 };
  });
  if (made.ok) rmSync(file(), { force: true });
  return made;
}

/** Beyond this a bearing and the name painted on a runway are not of the same strip. */
const MOST_OFF_DEG = 15;

/** What a schema cannot see: names, bearings and elevations that must fit each other. */
function misfits(d: AerodromeForm, variationDeg: number): Problem[] {
  const ends = d.runways.flatMap((r) => [r.ident, oppositeEnd(r.ident)]);
  return d.runways.flatMap((r, i) => {
    const magnetic = (((r.trueBearingDeg - variationDeg) % 360) + 360) % 360;
    const off = Math.abs(((magnetic - Number(r.ident.slice(0, 2)) * 10 + 540) % 360) - 180);
    return [
      ...(ends.filter((e) => e === r.ident).length > 1 ? [problemAt(`runways.${i}.ident`, told('other-end'))] : []),
      ...(off > MOST_OFF_DEG
        ? [
            problemAt(
              `runways.${i}.trueBearingDeg`,
              told('bearing-far', { ident: r.ident, magnetic: Math.round(magnetic) || 360 }),
            ),
          ]
        : []),
      ...((r.firstFt === null) !== (r.secondFt === null)
        ? [problemAt(`runways.${i}.${r.firstFt === null ? 'firstFt' : 'secondFt'}`, told('both-elevations'))]
        : []),
    ];
  });
}

/** The aerodrome of a form, with the variation looked up where none was given; or what cannot be so. */
function aerodromeOf(user: CurrentUser, d: AerodromeForm): Result<{ aerodrome: Aerodrome }> {
  if (!Intl.supportedValuesOf('timeZone').includes(d.timeZone) && d.timeZone !== 'UTC')
    return problem('timeZone', told('time-zone'));
  const onDate = localDate(nowIso(), d.timeZone);
  const variationDeg = d.variationDeg ?? magneticVariation(d.latitudeDeg, d.longitudeDeg, d.elevationFt, onDate);
  if (variationDeg === null) return problem('variationDeg', told('no-variation'));
  const wrong = misfits(d, variationDeg);
  if (wrong.length > 0) return { ok: false, problems: wrong };
  const end = (
    ident: string,
    trueBearingDeg: number,
    elevationFt: number | null,
    e: AerodromeForm['runways'][number]['ends'][number],
  ) => ({
    ...{ ident, trueBearingDeg, elevationFt, circuit: e.circuit, obstacle: null },
    landmark: e.landmarkM === null ? null : { name: e.landmark, alongM: e.landmarkM },
    ...{ slopeLightsDeg: e.slopeLightsDeg, slopeLightsM: e.slopeLightsM },
  });
  const { ident, name, elevationFt, timeZone, latitudeDeg, longitudeDeg, circuitHeightFt } = d;
  return {
    ok: true,
    aerodrome: {
      ...{ ident, name, elevationFt, variationDeg, timeZone, latitudeDeg, longitudeDeg, circuitHeightFt },
      runways: d.runways.map((r, i) => ({
        surface: r.surface,
        elevationFt: d.elevationFt,
        lengthM: r.lengthM,
        widthM: r.widthM,
        slopePct: 0,
        // Beside each other until the chart's middle is entered: where they cross is not known here.
        centre: { eastM: i * STRIPS_APART_M, northM: 0 },
        ends: [
          end(r.ident, r.trueBearingDeg, r.firstFt, r.ends[0]),
          end(oppositeEnd(r.ident), ((r.trueBearingDeg + 179) % 360) + 1, r.secondFt, r.ends[1]),
        ],
      })),
      airspace: [],
      source: `entered by ${user.name}${d.variationDeg === null ? '; variation by the World Magnetic Model 2025' : ''}`,
    },
  };
}

/** Where the school flies and by whose rules: the aerodrome of its own that every page works with. */
export async function setUpPlace(user: CurrentUser, form: unknown): Promise<Result<object>> {
  if (!may.changeHouse(user)) return problem('', told('chief-sets-up'));
  const parsed = PlaceForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  const made = aerodromeOf(user, d);
  if (!made.ok) return made;
  const placed = await write(async (t): Promise<Result<object>> => {
    if ((await homeZone(t)) !== null) return problem('', told('set-up-already'));
    const { aerodrome: body } = made;
    await putOwnVersion(
      { kind: 'aerodrome', key: d.ident, version: 1, body, author: user.name, reason: 'Set-up of the school' },
      t,
    );
    return { ok: true };
  });
  if (!placed.ok) return placed;
  const house = await newestContent('house', 'house');
  if (!house) return { ok: true };
  return saveContent(user, {
    kind: 'house',
    key: 'house',
    baseVersion: (await contentList()).find((c) => c.kind === 'house')?.version ?? 0,
    reason: 'Set-up of the school',
    body: { ...house.body, school: d.school, homePack: d.homePack } satisfies House,
  });
}

/** Another aerodrome the school flies at. */
export async function addAerodrome(user: CurrentUser, form: unknown): Promise<Result<{ ident: string }>> {
  if (!may.changeHouse(user)) return problem('', told('chief-sets-up'));
  const parsed = AerodromeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { ident } = parsed.data;
  const made = aerodromeOf(user, parsed.data);
  if (!made.ok) return made;
  return write(async (t): Promise<Result<{ ident: string }>> => {
    const known = await aerodromes(t);
    if (known.some((a) => a.ident === ident)) return problem('ident', told('aerodrome-known', { ident }));
    const { aerodrome: body } = made;
    await putOwnVersion(
      { kind: 'aerodrome', key: ident, version: 1, body, author: user.name, reason: 'Another aerodrome of the school' },
      t,
    );
    return { ok: true, ident };
  });
}
