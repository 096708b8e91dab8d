import { AdoptForm } from '@/domain/forms';
import type { Told } from '../../floor/sentences';
import { told } from '../sentences';
import type { Findings } from '@/domain/findings';
import { createHash } from 'node:crypto';
import { z } from 'zod';
import { broadGroup, gearMassGroup, ofGroup, contentWords, patternFindings } from '@/core/plan';
import { canonicalText } from '@/core/ledger';
import type { House, Programme, RulePack } from '@/domain/programme';
import type { Aerodrome } from '@/domain/sheet';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { hangar } from '../../hangar/queries/hangar';
import { CONTENT, type ContentKind, contentById } from '../content';
import { write } from '../../floor/write';
import { type Problem, type Result, problem, zodProblems, problemAt } from '../../floor/result';
import * as ask from '../../floor/statements/rules';
import { ContentVersions } from '../tables';
import { Op, type Transaction } from 'sequelize';

export const ContentForm = z.object({
  kind: z.string(),
  key: z.string().min(1).max(60),
  baseVersion: z.number().int().min(0),
  reason: z
    .string()
    .trim()
    .min(5, 'Say why, in a few words: the next reader needs it.')
    .max(300, 'At most 300 characters.'),
  body: z.unknown(),
});
export const isContentKind = (kind: string): kind is ContentKind => Object.hasOwn(CONTENT, kind);

/**
 * Saves the house's own version of a rule pack, a programme, a standard or another piece of content. Checkouts keep the
 * versions they run under.
 */
export async function saveContent(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ version: number; unchanged: boolean }>> {
  const parsed = ContentForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-edits'));
  const { kind, key, baseVersion, reason } = parsed.data;
  if (!isContentKind(kind)) return problem('', told('not-found'));
  const body = CONTENT[kind].safeParse(parsed.data.body);
  if (!body.success)
    return {
      ok: false,
      problems: body.error.issues.map((i) => ({ path: `sheet.${i.path.join('.')}`, message: i.message })),
    };
  const wrong = [
    ...inconsistent(kind, key, body.data),
    ...(kind === 'house' ? await unlimited(body.data as House) : []),
    ...(kind === 'findings' ? await strayFacts(body.data as Findings) : []),
  ];
  if (wrong.length > 0) return { ok: false, problems: wrong };
  const hash = hashOf(canonicalText(body.data));
  return write(async (t): Promise<Result<{ version: number; unchanged: boolean }>> => {
    const newest = await ContentVersions.first(
      { where: { kind, key, origin: { [Op.ne]: 'proposed' } }, pick: ['version', 'hash'], order: ['-version'] },
      t,
    );
    if (!newest) return problem('', told('not-found'));
    if (newest.hash === hash) return { ok: true, version: newest.version, unchanged: true };
    if (newest.version !== baseVersion) return problem('', told('saved-meanwhile', { version: newest.version }));
    const top = await ask.saveContent.one({ kind, key }, t);
    const version = (top?.version ?? 0) + 1;
    await putOwnVersion({ kind, key, version, body: body.data, author: user.name, reason }, t);
    return { ok: true, version, unchanged: false };
  });
}

/** Puts a version of the house's own. Commands ask first who may, and what stands. */
export async function putOwnVersion(
  of: { kind: ContentKind; key: string; version: number; body: unknown; author: string; reason: string },
  t: Transaction,
): Promise<void> {
  const text = canonicalText(of.body);
  await ContentVersions.insert(
    {
      id: `${of.kind}:${of.key}:${of.version}`,
      kind: of.kind,
      key: of.key,
      version: of.version,
      hash: hashOf(text),
      origin: 'house',
      body: text,
      author: of.author,
      reason: of.reason,
      createdAt: nowIso(),
    },
    t,
  );
}
const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');

/** Facts a pattern reads and nothing has: it would never be raised, and say nothing. */
async function strayFacts({ patterns }: Findings): Promise<Problem[]> {
  const standards = await ContentVersions.find({ where: { kind: 'standard' }, pick: ['id'] });
  const bodies = await Promise.all(standards.map((s) => contentById('standard', s.id)));
  const criteria = [...new Set(bodies.flatMap((s) => s.criteria.map((c) => c.id)))];
  return patterns.flatMap((p, i) =>
    patternFindings([p], criteria).map((f) => ({
      path: `sheet.patterns.${i}`,
      message: `${p.id} ${contentWords(f)}.`,
    })),
  );
}

/** Groups of the hangar's types for which the school would have no crosswind limit of its own. */
async function unlimited(house: House): Promise<Problem[]> {
  const groups = [...new Set((await hangar()).map((t) => gearMassGroup(t.sheet)))];
  return groups
    .filter((g) => ofGroup(house.crosswindKt, g) === undefined)
    .map((g) => ({
      path: 'sheet.crosswindKt',
      ...told('no-crosswind-limit', { group: g.replaceAll('-', ' '), entry: g, broad: broadGroup(g) }),
    }));
}

/** What a schema cannot say: names that must match, and refer to something there. */
function inconsistent(kind: ContentKind, key: string, body: unknown): Problem[] {
  const problems: Problem[] = [];
  const say = (path: string, what: Told) => problems.push(problemAt(`sheet.${path}`, what));
  if (kind === 'programme') {
    const p = body as Programme;
    if (p.key !== key) say('key', told('programme-name', { key }));
    if (`${p.goal}-${p.pack}` !== p.key) say('goal', told('programme-goal', { key }));
    const ids = p.items.map((i) => i.id);
    p.items.forEach((item, i) => {
      if (ids.indexOf(item.id) !== i) say(`items.${i}.id`, told('item-twice', { id: item.id }));
      item.prerequisites.forEach((pre, j) => {
        if (!ids.includes(pre) || pre === item.id)
          say(`items.${i}.prerequisites.${j}`, told('no-prerequisite', { id: pre }));
      });
    });
    if (problems.length === 0 && circular(p)) say('items', told('circle'));
  }
  if (kind === 'house') {
    const { schedule, weather } = body as House;
    for (const field of ['reportUrl', 'forecastUrl'] as const)
      if (weather[field] !== '' && !webAddress(weather[field])) say(`weather.${field}`, told('web-address'));
    if (schedule.openToMin <= schedule.openFromMin) say('schedule.openToMin', told('hours-end-before-start'));
    if (1440 % schedule.stepMin !== 0) say('schedule.stepMin', told('step-of-day'));
  }
  if (kind === 'aerodrome') {
    const a = body as Aerodrome;
    if (a.ident !== key) say('ident', told('aerodrome-name', { key }));
    if (a.runways.length === 0) say('runways', told('no-runway'));
    if (Math.abs(a.latitudeDeg) > 90) say('latitudeDeg', told('latitude'));
    if (Math.abs(a.longitudeDeg) > 180) say('longitudeDeg', told('longitude'));
    if (Math.abs(a.variationDeg) > 60) say('variationDeg', told('variation'));
    if (!validZone(a.timeZone)) say('timeZone', told('time-zone'));
    const idents = a.runways.flatMap((r) => r.ends.map((e) => e.ident));
    a.runways.forEach((r, i) => {
      if (!(r.lengthM >= 50 && r.lengthM <= 6000)) say(`runways.${i}.lengthM`, told('runway-length'));
      if (!(r.widthM >= 3 && r.widthM <= 200)) say(`runways.${i}.widthM`, told('runway-width'));
      const [one, two] = r.ends;
      if (((one?.elevationFt ?? null) === null) !== ((two?.elevationFt ?? null) === null))
        say(`runways.${i}.ends.${one?.elevationFt == null ? 0 : 1}.elevationFt`, told('both-elevations'));
      r.ends.forEach((e, j) => {
        if (idents.filter((x) => x === e.ident).length > 1)
          say(`runways.${i}.ends.${j}.ident`, told('end-twice', { ident: e.ident }));
        if (!(e.trueBearingDeg > 0 && e.trueBearingDeg <= 360))
          say(`runways.${i}.ends.${j}.trueBearingDeg`, told('true-bearing'));
        if (e.landmark && !(e.landmark.alongM > 0 && e.landmark.alongM < r.lengthM))
          say(`runways.${i}.ends.${j}.landmark.alongM`, told('landmark'));
      });
      if (one && two && Math.abs(((two.trueBearingDeg - one.trueBearingDeg + 720) % 360) - 180) > 1)
        say(`runways.${i}.ends.1.trueBearingDeg`, told('opposite-ends'));
    });
  }
  if (kind === 'pack') {
    const p = body as RulePack;
    if (p.key !== key) say('key', told('pack-name', { key }));
    const goals: string[] = p.goals.map((g) => g.goal);
    p.goals.forEach((g, i) => {
      if (goals.indexOf(g.goal) !== i) say(`goals.${i}.goal`, told('goal-twice', { goal: g.goal }));
    });
    Object.entries(p.endorsementGoals).forEach(([k, g]) => {
      if (!goals.includes(g)) say(`endorsementGoals.${k}`, told('goal-unknown', { goal: g }));
    });
  }
  return problems;
}

/** An address a report may be had from: http or https, a host, no name and password in it. */
const webAddress = (text: string): boolean => {
  const url = URL.parse(text);
  return (
    url !== null && /^https?:$/.test(url.protocol) && url.hostname !== '' && url.username === '' && url.password === ''
  );
};

const validZone = (zone: string): boolean => {
  try {
    return new Intl.DateTimeFormat('en-GB', { timeZone: zone }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
};

function circular(p: Programme): boolean {
  const done = new Set<string>();
  for (let round = 0; round < p.items.length; round++)
    for (const i of p.items) if (i.prerequisites.every((x) => done.has(x))) done.add(i.id);
  return done.size < p.items.length;
}

/** Takes a version the product proposed into force, as a version of the house's own. */
export async function adoptContent(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ version: number; unchanged: boolean }>> {
  const parsed = AdoptForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', told('chief-edits'));
  const found = await ContentVersions.first({ where: { id: parsed.data.id }, pick: ['kind', 'key', 'body', 'origin'] });
  if (found?.origin !== 'proposed') return problem('', told('not-found'));
  const newest = await ContentVersions.first({
    where: { kind: found.kind, key: found.key, origin: { [Op.ne]: 'proposed' } },
    pick: ['version'],
    order: ['-version'],
  });
  return saveContent(user, {
    kind: found.kind,
    key: found.key,
    baseVersion: newest?.version ?? 0,
    reason: parsed.data.reason,
    body: JSON.parse(found.body) as unknown,
  });
}
