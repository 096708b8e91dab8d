import { createHash } from 'node:crypto';
import { z } from 'zod';
import { broadGroup, gearMassGroup, ofGroup } from '@/core/plan';
import { canonicalText } from '@/core/ledger';
import type { House, Programme, RulePack } from '@/domain/programme';
import type { Aerodrome } from '@/domain/sheet';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { hangar } from '../../hangar/queries/hangar';
import { CONTENT, type ContentKind } from '../content';
import { write } from '../../floor/write';
import { type Problem, type Result, problem, zodProblems } from '../../floor/result';
import * as ask from '../../floor/statements/rules';
import { ContentVersions } from '../tables';
import { Op } from 'sequelize';

export const ContentForm = z.object({
  kind: z.string(),
  key: z.string().min(1).max(60),
  baseVersion: z.number().int().min(0),
  reason: z
    .string()
    .trim()
    .min(5, 'Say why, in a few words: the next reader needs it.')
    .max(300, 'Keep it under 300 characters.'),
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
  if (!may.changeHouse(user)) return problem('', 'The chief instructor edits rules, programmes and standards.');
  const { kind, key, baseVersion, reason } = parsed.data;
  if (!isContentKind(kind)) return problem('', 'There is no such kind of content.');
  const body = CONTENT[kind].safeParse(parsed.data.body);
  if (!body.success)
    return {
      ok: false,
      problems: body.error.issues.map((i) => ({ path: `sheet.${i.path.join('.')}`, message: i.message })),
    };
  const wrong = [
    ...inconsistent(kind, key, body.data),
    ...(kind === 'house' ? await unlimited(body.data as House) : []),
  ];
  if (wrong.length > 0) return { ok: false, problems: wrong };
  const text = canonicalText(body.data);
  const hash = createHash('sha256').update(text).digest('hex');
  return write(async (t): Promise<Result<{ version: number; unchanged: boolean }>> => {
    const newest = await ContentVersions.first(
      { where: { kind, key, origin: { [Op.ne]: 'proposed' } }, pick: ['version', 'hash'], order: ['-version'] },
      t,
    );
    if (!newest) return problem('', 'There is nothing of this name to change.');
    if (newest.hash === hash) return { ok: true, version: newest.version, unchanged: true };
    if (newest.version !== baseVersion)
      return problem(
        '',
        `Version ${newest.version} was saved meanwhile. Your entries stay here: open the newest in another tab, compare, and save again from it.`,
      );
    const top = await ask.saveContent.one({ kind, key }, t);
    const version = (top?.version ?? 0) + 1;
    await ContentVersions.insert(
      {
        id: `${kind}:${key}:${version}`,
        kind,
        key,
        version,
        hash,
        origin: 'house',
        body: text,
        author: user.name,
        reason,
        createdAt: nowIso(),
      },
      t,
    );
    return { ok: true, version, unchanged: false };
  });
}

/** Groups of the hangar's types for which the school would have no crosswind limit of its own. */
async function unlimited(house: House): Promise<Problem[]> {
  const groups = [...new Set((await hangar()).map((t) => gearMassGroup(t.sheet)))];
  return groups
    .filter((g) => ofGroup(house.crosswindKt, g) === undefined)
    .map((g) => ({
      path: 'sheet.crosswindKt',
      message: `No crosswind limit for ${g.replaceAll('-', ' ')}, which the hangar has. Add an entry named ${g}, or ${broadGroup(g)} for all of that mass and gear.`,
    }));
}

/** What a schema cannot say: names that must match, and refer to something there. */
function inconsistent(kind: ContentKind, key: string, body: unknown): Problem[] {
  const problems: Problem[] = [];
  const say = (path: string, message: string) => problems.push({ path: `sheet.${path}`, message });
  if (kind === 'programme') {
    const p = body as Programme;
    if (p.key !== key) say('key', `This programme is called ${key}; its name does not change.`);
    if (`${p.goal}-${p.pack}` !== p.key) say('goal', `Goal and pack of ${key} do not change: they are its name.`);
    const ids = p.items.map((i) => i.id);
    p.items.forEach((item, i) => {
      if (ids.indexOf(item.id) !== i)
        say(`items.${i}.id`, `Two items are called ${item.id}. Give this one a name of its own.`);
      item.prerequisites.forEach((pre, j) => {
        if (!ids.includes(pre) || pre === item.id)
          say(`items.${i}.prerequisites.${j}`, `There is no other item ${pre} in this programme.`);
      });
    });
    if (problems.length === 0 && circular(p))
      say('items', 'Items wait for each other in a circle: take one of the prerequisites out.');
  }
  if (kind === 'house') {
    const { schedule } = body as House;
    if (schedule.openToMin <= schedule.openFromMin)
      say('schedule.openToMin', 'The day of bookings ends before it begins.');
    if (1440 % schedule.stepMin !== 0)
      say('schedule.stepMin', 'Choose a step that goes into a day: 5, 10, 15, 20, 30 or 60 min.');
  }
  if (kind === 'aerodrome') {
    const a = body as Aerodrome;
    if (a.ident !== key) say('ident', `This aerodrome is called ${key}; its name does not change.`);
    if (a.runways.length === 0) say('runways', 'An aerodrome has at least one runway.');
    if (Math.abs(a.latitudeDeg) > 90) say('latitudeDeg', 'Give a latitude from -90 to 90, north positive.');
    if (Math.abs(a.longitudeDeg) > 180) say('longitudeDeg', 'Give a longitude from -180 to 180, east positive.');
    if (Math.abs(a.variationDeg) > 60) say('variationDeg', 'Give the variation in degrees, west negative.');
    if (!validZone(a.timeZone)) say('timeZone', 'This is no time zone. Write it like Europe/Lisbon.');
    const idents = a.runways.flatMap((r) => r.ends.map((e) => e.ident));
    a.runways.forEach((r, i) => {
      if (!(r.lengthM >= 50 && r.lengthM <= 6000)) say(`runways.${i}.lengthM`, 'Give a length from 50 to 6000 m.');
      if (!(r.widthM >= 3 && r.widthM <= 200)) say(`runways.${i}.widthM`, 'Give a width from 3 to 200 m.');
      const [one, two] = r.ends;
      if (((one?.elevationFt ?? null) === null) !== ((two?.elevationFt ?? null) === null))
        say(
          `runways.${i}.ends.${one?.elevationFt == null ? 0 : 1}.elevationFt`,
          'Give the elevation of both ends, or of neither: the slope is computed from the two.',
        );
      r.ends.forEach((e, j) => {
        if (idents.filter((x) => x === e.ident).length > 1)
          say(`runways.${i}.ends.${j}.ident`, `Two ends are called ${e.ident}.`);
        if (!(e.trueBearingDeg > 0 && e.trueBearingDeg <= 360))
          say(`runways.${i}.ends.${j}.trueBearingDeg`, 'Give the true bearing, above 0 to 360; north is 360.');
        if (e.landmark && !(e.landmark.alongM > 0 && e.landmark.alongM < r.lengthM))
          say(
            `runways.${i}.ends.${j}.landmark.alongM`,
            'The landmark lies beside the runway: metres past this threshold.',
          );
      });
      if (one && two && Math.abs(((two.trueBearingDeg - one.trueBearingDeg + 720) % 360) - 180) > 1)
        say(`runways.${i}.ends.1.trueBearingDeg`, 'The two ends point in opposite directions, within one degree.');
    });
  }
  if (kind === 'pack') {
    const p = body as RulePack;
    if (p.key !== key) say('key', `This pack is called ${key}; its name does not change.`);
    const goals: string[] = p.goals.map((g) => g.goal);
    p.goals.forEach((g, i) => {
      if (goals.indexOf(g.goal) !== i) say(`goals.${i}.goal`, `The goal ${g.goal} stands twice.`);
    });
    Object.entries(p.endorsementGoals).forEach(([k, g]) => {
      if (!goals.includes(g)) say(`endorsementGoals.${k}`, `This pack has no goal ${g}.`);
    });
  }
  return problems;
}

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

export const AdoptForm = z.object({
  id: z.string().min(1),
  reason: z.string().trim().min(5, 'Say why, in a few words.').max(300, 'Keep it under 300 characters.'),
});
/** Takes a version the product proposed into force, as a version of the house's own. */
export async function adoptContent(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ version: number; unchanged: boolean }>> {
  const parsed = AdoptForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  if (!may.changeHouse(user)) return problem('', 'The chief instructor edits rules, programmes and standards.');
  const found = await ContentVersions.first({ where: { id: parsed.data.id }, pick: ['kind', 'key', 'body', 'origin'] });
  if (found?.origin !== 'proposed') return problem('', 'There is no such proposal.');
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
