import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { computeBrief } from '@/core/approach';
import { openCheckout as computeOpening, sheetFacts } from '@/core/plan';
import { BriefChoices } from '@/domain/brief';
import { GOALS, PACKS } from '@/domain/words';
import { type CurrentUser, may } from '../auth/permissions';
import { nowIso } from '../clock';
import { homeAerodrome, newestContent, contentById } from '../content';
import { row, rows } from '../db/connection';
import { model } from '../db/models';
import { write } from '../db/write';
import { type Result, problem, zodProblems } from '../result';
import { checkoutHead, ladderOf, sortiesOf } from '../queries/checkout';
import { hangar } from '../queries/hangar';
import { pilotList } from '../queries/lists';

export const OpenForm = z.object({
  requestId: z.uuid(),
  pilotId: z.string().min(1, 'Choose the pilot.'),
  airframeId: z.string().min(1, 'Choose the aeroplane.'),
  pack: z.enum(PACKS, 'Choose the rules.'),
  goals: z.array(z.enum(GOALS)).min(1, 'Choose at least one goal.'),
  standardKey: z.string().min(1, 'Choose the standard.'),
  note: z.string().max(1000, 'Keep the note under 1000 characters.'),
});
export type OpenForm = z.infer<typeof OpenForm>;

/** The programme of a goal under a pack; the house's own when the pack has none. */
async function programmeFor(goal: string, pack: string) {
  return (await newestContent('programme', `${goal}-${pack}`)) ?? (await newestContent('programme', `${goal}-house`));
}

/** Opens a checkout and pins every version it will run under. The same request twice gives the same checkout. */
export async function openCheckout(user: CurrentUser, form: unknown): Promise<Result<{ id: string }>> {
  const parsed = OpenForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  if (!may.openCheckoutFor(user, { pilotId: data.pilotId })) return problem('pilotId', 'You cannot open a checkout for yourself: another instructor opens it.');
  const before = await row<{ id: string }>('SELECT id FROM checkouts WHERE request_id = :r', { r: data.requestId });
  if (before) return { ok: true, id: before.id };
  const pilot = (await pilotList()).find((p) => p.id === data.pilotId);
  if (!pilot) return problem('pilotId', 'This pilot is not in the book of people. Choose another.');
  const airframe = (await hangar()).flatMap((t) => t.airframes).find((a) => a.id === data.airframeId);
  if (!airframe) return problem('airframeId', 'This aeroplane is not in the hangar. Choose another.');
  const pack = await newestContent('pack', data.pack);
  const house = await newestContent('house', 'house');
  const schools = await newestContent('schools', 'schools');
  const standard = await newestContent('standard', data.standardKey);
  if (!standard || !pack || !house || !schools) return problem('standardKey', 'This standard is not set up. Choose another.');
  const programmes = await Promise.all(data.goals.map((g) => programmeFor(g, data.pack)));
  const without = data.goals.filter((_, i) => !programmes[i]);
  if (without.length > 0) return problem('goals', `There is no programme yet for ${without.join(', ')} under these rules. Leave it out here and run it when the chief has added one.`);
  const opening = computeOpening(sheetFacts(airframe.effective), pack.body, pilot.holds.map((h) => ({ ...h, note: '' })), pilot.experienceSince);
  const usual = airframe.effective.landing.usualAttitude;
  const chosenSchools = Object.fromEntries(schools.body.topics.map((topic) => [topic.key, topic.key === 'first-landing' && topic.sides.some((s) => s.key === usual) ? usual : topic.fallback]));
  const id = randomUUID();
  await write(async (t) => {
    await model('checkouts').create(
      {
        id, pilot_id: pilot.id, instructor_id: user.id, airframe_id: airframe.id, airframe_version_id: airframe.versionId, type_version_id: airframe.typeVersionId, pack: data.pack,
        goals: JSON.stringify(data.goals), programme_ids: JSON.stringify(programmes.map((p) => p?.id)), standard_id: standard.id, pack_id: pack.id, house_id: house.id,
        schools: JSON.stringify(chosenSchools), opening: JSON.stringify(opening), note: data.note, status: 'open', signed_ledger_id: null, request_id: data.requestId, created_by: user.id, created_at: nowIso(),
      },
      { transaction: t },
    );
  });
  return { ok: true, id };
}

export const SaveBriefForm = z.object({ requestId: z.uuid(), checkoutId: z.string().min(1), choices: BriefChoices });

/** Limits of what may be typed; the message says what to do. */
const BriefChoicesChecked = BriefChoices.extend({
  flownOn: z.iso.date('Give the day as year-month-day.'),
  fuelL: z.number('Give the fuel in litres.').min(0, 'Fuel cannot be negative.').max(2000, 'Give the fuel in litres, 2000 at most.'),
  pilotKg: z.number('Give the mass in kilograms.').min(30, 'At least 30 kg.').max(200, 'At most 200 kg.'),
  instructorKg: z.number('Give the mass in kilograms.').min(0, 'Cannot be negative.').max(200, 'At most 200 kg.'),
  baggageKg: z.number('Give the mass in kilograms.').min(0, 'Cannot be negative.').max(500, 'At most 500 kg.'),
  instructorLimitKt: z.number().min(0).max(60, 'At most 60 kt.').nullable(),
  focus: z.string().max(120, 'Keep the focus under 120 characters.'),
});

/** Computes and stores the brief of the next lesson. Until something is recorded, a new brief of the same lesson replaces the last. */
export async function saveBrief(user: CurrentUser, form: unknown): Promise<Result<{ sortieId: string; briefId: string; lesson: number }>> {
  const parsed = SaveBriefForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const choices = BriefChoicesChecked.safeParse(parsed.data.choices);
  if (!choices.success) return zodProblems(choices.error);
  const { requestId, checkoutId } = parsed.data;
  const head = await checkoutHead(checkoutId);
  if (!head || !may.runCheckout(user, head)) return problem('', 'There is no such checkout for you to brief.');
  if (head.status === 'signed') return problem('', 'This checkout is signed. Open a new one to go on.');
  const today = nowIso().slice(0, 10);
  if (choices.data.flownOn > addDays(today, 14)) return problem('flownOn', 'Brief at most two weeks ahead.');
  const context = {
    sheet: head.sheet, airframeCrosswindKt: head.airframe.crosswindLimitKt?.value ?? null, aerodrome: await homeAerodrome(), house: await contentById('house', head.houseId),
    ladder: await ladderOf(head.pilotId, head.sheet, choices.data.flownOn), pilotName: head.pilotName, dual: true, nowIso: nowIso(),
  };
  const snapshot = computeBrief(choices.data, context);
  if (!snapshot.runways.some((r) => r.ident === choices.data.runwayEnd)) return problem('runwayEnd', 'Choose a runway of this aerodrome.');
  return write(async (t) => {
    const done = await row<{ id: string; sortie_id: string; lesson: number }>('SELECT b.id, b.sortie_id, s.lesson FROM briefs b JOIN sorties s ON s.id = b.sortie_id WHERE b.request_id = :requestId', { requestId }, t);
    if (done) return { ok: true as const, sortieId: done.sortie_id, briefId: done.id, lesson: done.lesson };
    const sorties = await sortiesOf(checkoutId, t);
    const latest = sorties[sorties.length - 1];
    const recorded = latest ? await row('SELECT 1 AS x FROM capture_events WHERE sortie_id = :id LIMIT 1', { id: latest.id }, t) : null;
    const fresh = !latest || recorded !== null;
    if (fresh && latest && choices.data.flownOn < latest.flownOn) return problem('flownOn', `Lesson ${latest.lesson} was flown on ${latest.flownOn}: the next cannot be before it.`);
    const sortieId = fresh ? randomUUID() : latest.id;
    const lesson = fresh ? (latest?.lesson ?? 0) + 1 : latest.lesson;
    if (fresh) await model('sorties').create({ id: sortieId, checkout_id: checkoutId, lesson, flown_on: choices.data.flownOn, instructor_id: user.id, created_at: nowIso() }, { transaction: t });
    else await model('sorties').update({ flown_on: choices.data.flownOn, instructor_id: user.id }, { where: { id: sortieId }, transaction: t });
    const versions = await rows<{ version: number }>('SELECT version FROM briefs WHERE sortie_id = :sortieId', { sortieId }, t);
    const briefId = randomUUID();
    await model('briefs').create(
      {
        id: briefId, checkout_id: checkoutId, sortie_id: sortieId, version: versions.length + 1, choices: JSON.stringify(choices.data), snapshot: JSON.stringify(snapshot),
        created_by: user.id, created_at: nowIso(), acknowledged_by: null, acknowledged_at: null, request_id: requestId,
      },
      { transaction: t },
    );
    return { ok: true as const, sortieId, briefId, lesson };
  });
}

const addDays = (isoDate: string, days: number): string => new Date(Date.parse(isoDate) + days * 86_400_000).toISOString().slice(0, 10);

/** The pilot says: read and understood. Twice is once. */
export async function acknowledgeBrief(user: CurrentUser, briefId: string): Promise<Result<object>> {
  return write(async (t) => {
    const brief = await row<{ acknowledged_at: string | null; pilot_id: string }>('SELECT b.acknowledged_at, c.pilot_id FROM briefs b JOIN checkouts c ON c.id = b.checkout_id WHERE b.id = :briefId', { briefId }, t);
    if (!brief || !may.acknowledgeBrief(user, { pilotId: brief.pilot_id })) return problem('', 'There is no such brief for you to acknowledge.');
    if (!brief.acknowledged_at) await model('briefs').update({ acknowledged_by: user.id, acknowledged_at: nowIso() }, { where: { id: briefId }, transaction: t });
    return { ok: true as const };
  });
}

export const SchoolsForm = z.object({ checkoutId: z.string(), schools: z.record(z.string(), z.string()) });

/** Stores the school chosen on each topic; only sides that exist are taken. */
export async function chooseSchools(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = SchoolsForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const head = await checkoutHead(parsed.data.checkoutId);
  const topics = (await newestContent('schools', 'schools'))?.body.topics ?? [];
  if (!head || !may.runCheckout(user, head) || head.status === 'signed') return problem('', 'There is no such checkout for you to change.');
  const chosen = Object.fromEntries(topics.map((topic) => {
    const side = parsed.data.schools[topic.key];
    return [topic.key, topic.sides.some((s) => s.key === side) ? side : (head.schools[topic.key] ?? topic.fallback)];
  }));
  await write(async (t) => void (await model('checkouts').update({ schools: JSON.stringify(chosen) }, { where: { id: head.id }, transaction: t })));
  return { ok: true };
}
