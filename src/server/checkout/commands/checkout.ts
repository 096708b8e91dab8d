import { SwapForm, NewerSheetsForm } from '@/domain/forms';
import { OpenForm } from '@/domain/open-form';
import { told } from '../sentences';
import type { Told } from '../../floor/sentences';
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import { computeBrief } from '@/core/approach';
import { habitCues } from '@/core/differences';
import { list } from '@/core/format';
import { openCheckout as computeOpening, offeredFor, schoolDefaults, sheetFacts } from '@/core/plan';
import { unconfirmed } from '@/core/sheet';
import { BriefChoices } from '@/domain/brief';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { aerodromeAt, keptAerodrome, newestContent, contentById } from '../../rules/content';
import { write } from '../../floor/write';
import { type Result, problem, zodProblems, problemAt } from '../../floor/result';
import { groundSamples, sortiesOf } from '../queries/flights';
import { type CheckoutHead, checkoutHead } from '../queries/head';
import { elsewhereOf, programmeFor } from '../queries/elsewhere';
import { ladderOf } from '../queries/ladder';
import { parsedAirframe, parsedSheet } from '../../hangar/sheets';
import { localToday } from '../../rules/today';
import { hangar } from '../../hangar/queries/hangar';
import { teachState } from '../../people/queries/recency';
import { pilotList } from '../queries/lists';
import { differencesOf, eyeHeightOf } from '../../people/queries/pilot';
import { Briefs, Checkouts, Sorties, BriefTemplates } from '../tables';
import { noteMove } from './moves';
import { CaptureEvents, Landings } from '../../fly/tables';
import { AirframeVersions, TypeVersions } from '../../hangar/tables';

/** Opens a checkout and pins every version it will run under. The same request twice gives the same checkout. */
export async function openCheckout(user: CurrentUser, form: unknown): Promise<Result<{ id: string }>> {
  const parsed = OpenForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  if (!may.openCheckoutFor(user, { pilotId: data.pilotId })) return problem('pilotId', told('own-checkout'));
  const before = await Checkouts.first({ where: { requestId: data.requestId }, pick: ['id'] });
  if (before) return { ok: true, id: before.id };
  const pilot = (await pilotList()).find((p) => p.id === data.pilotId);
  if (!pilot) return problem('pilotId', told('pilot-unknown'));
  const airframe = (await hangar()).flatMap((t) => t.airframes).find((a) => a.id === data.airframeId);
  if (!airframe) return problem('airframeId', told('aeroplane-unknown'));
  const samples = samplesIn(airframe.effective, airframe.airframe);
  if (samples > 0) return problem('airframeId', told('samples', { count: samples }));
  const pack = await newestContent('pack', data.pack);
  const house = await newestContent('house', 'house');
  const schools = await newestContent('schools', 'schools');
  const standard = await newestContent('standard', data.standardKey);
  if (!standard || !pack || !house || !schools) return problem('standardKey', told('standard-unknown'));
  const programmes = await Promise.all(data.goals.map((g) => programmeFor(g, data.pack)));
  const without = data.goals.filter((_, i) => !programmes[i]);
  if (without.length > 0) return problem('goals', told('no-programme', { goals: without.join(', ') }));
  const facts = sheetFacts(airframe.effective);
  const not = data.goals.filter((_, i) => {
    const programme = programmes[i];
    return programme && !offeredFor(programme.body, facts);
  });
  if (not.length > 0)
    return problem('goals', told('goal-not-here', { goals: list(not.map(say)), registration: airframe.registration }));
  const opening = computeOpening(
    facts,
    pack.body,
    pilot.holds.map((h) => ({ ...h, note: '' })),
    pilot.experienceSince,
    airframe.effective.code,
    { dates: pilot.dates, onDate: await localToday() },
  );
  const chosenSchools = schoolDefaults(airframe.effective, schools.body.topics);
  // What was ticked on the page is worked out again here: the offer may have changed meanwhile.
  const carried = (await elsewhereOf(data)).flatMap((e) =>
    data.carry.includes(e.id) ? e.proves.map((p) => ({ itemId: p.itemId, checkoutId: e.id, on: p.on })) : [],
  );
  const id = randomUUID();
  await write(async (t) => {
    await Checkouts.insert(
      {
        id,
        pilotId: pilot.id,
        instructorId: user.id,
        airframeId: airframe.id,
        airframeVersionId: airframe.versionId,
        typeVersionId: airframe.typeVersionId,
        pack: data.pack,
        goals: data.goals,
        programmeIds: programmes.flatMap((p) => p?.id ?? []),
        standardId: standard.id,
        packId: pack.id,
        houseId: house.id,
        schools: chosenSchools,
        opening: opening,
        carried,
        note: data.note,
        status: 'open',
        signedLedgerId: null,
        requestId: data.requestId,
        createdBy: user.id,
        createdAt: nowIso(),
      },
      t,
    );
  });
  return { ok: true, id };
}

/** Numbers of the type and of the registration that nobody has confirmed: nothing is briefed or flown with them. */
const samplesIn = (type: object, airframe: object): number => unconfirmed(type).length + unconfirmed(airframe).length;

/** What the law asks of an instructor in this aeroplane and this one lacks on the day, each with its rule. */
async function teachStops(user: CurrentUser, head: CheckoutHead, onDate: string): Promise<Told[]> {
  const pack = await contentById('pack', head.packId);
  const house = await contentById('house', head.houseId);
  const state = await teachState(user, { sheet: head.sheet, pack, house, goals: head.goals }, onDate);
  return [
    ...state.ratings.map((r) => told('rating-not-on-record', { rating: r.text, citation: r.citation })),
    ...(state.lacks.length > 0 ? [told('instructor-lacks', { kinds: list(state.lacks.map(say)) })] : []),
    ...(state.modelHours && state.modelHours.have < state.modelHours.needed
      ? [told('model-hours', state.modelHours)]
      : []),
  ];
}

export const SaveBriefForm = z.object({
  requestId: z.uuid(),
  checkoutId: z.string().min(1),
  choices: BriefChoices,
  /** The brief of this lesson that stood when the page was opened; null = there was none. */
  base: z.string().max(64).nullable(),
});

/** Limits of what may be typed; the message says what to do. */
const BriefChoicesChecked = BriefChoices.extend({
  flownOn: z.iso.date('Enter the date as 24 Nov 2026.'),
  fuelL: z
    .number('Give the fuel in litres.')
    .min(0, 'Fuel cannot be negative.')
    .max(2000, 'Give the fuel in litres, 2000 at most.'),
  pilotKg: z.number('Give the mass in kilograms.').min(30, 'At least 30 kg.').max(200, 'At most 200 kg.'),
  instructorKg: z.number('Give the mass in kilograms.').min(0, 'Cannot be negative.').max(200, 'At most 200 kg.'),
  baggageKg: z.number('Give the mass in kilograms.').min(0, 'Cannot be negative.').max(500, 'At most 500 kg.'),
  rearKg: z.number('Give the mass in kilograms.').min(0, 'Cannot be negative.').max(600, 'At most 600 kg.'),
  bookingMin: z.number('Give the minutes of the booking.').min(10, 'At least 10 min.').max(720, 'At most 720 min.'),
  qnhHpa: z
    .number()
    .min(870, 'An altimeter setting lies between 870 and 1085 hPa.')
    .max(1085, 'An altimeter setting lies between 870 and 1085 hPa.')
    .nullable(),
  oatC: z.number().min(-50, 'Between -50 and 55 °C.').max(55, 'Between -50 and 55 °C.').nullable(),
  second: z
    .object({
      registration: z.string().max(12, 'At most 12 letters.'),
      leads: z.enum(['this', 'other']),
      position: z.string().max(80, 'At most 80 characters.'),
      place: z.string().max(80, 'At most 80 characters.'),
      heightFt: z.number().min(0, 'Give feet on QNH.').max(20000, 'At most 20 000 ft.').nullable(),
      at: z.string().max(40, 'At most 40 characters.'),
      breakS: z.number().min(1, 'At least 1 s.').max(60, 'At most 60 s.').nullable(),
    })
    .nullable(),
  layout: z.object({
    order: z.array(z.string().max(40)).max(80),
    hidden: z.array(z.string().max(40)).max(80),
    own: z
      .array(z.object({ id: z.string().max(40), title: z.string().min(1).max(60), text: z.string().min(1).max(600) }))
      .max(20),
  }),
  instructorLimitKt: z.number().min(0).max(60, 'At most 60 kt.').nullable(),
  focus: z.string().max(120, 'Keep the focus under 120 characters.'),
});

/**
 * Computes and stores the brief of the next lesson. Until something is recorded, a new brief of the same lesson
 * replaces the last.
 */
export async function saveBrief(
  user: CurrentUser,
  form: unknown,
): Promise<Result<{ sortieId: string; briefId: string; lesson: number }>> {
  const parsed = SaveBriefForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const choices = BriefChoicesChecked.safeParse(parsed.data.choices);
  if (!choices.success) return zodProblems(choices.error);
  const { requestId, checkoutId } = parsed.data;
  const head = await checkoutHead(checkoutId);
  if (!head || !may.runCheckout(user, head)) return problem('', told('not-found'));
  if (head.status !== 'open') return problem('', told('not-open'));
  const samples = samplesIn(head.sheet, head.airframe);
  if (samples > 0) return problem('', told('samples', { count: samples }));
  const stops = await teachStops(user, head, choices.data.flownOn);
  if (stops.length > 0) return { ok: false, problems: stops.map((s) => problemAt('', s)) };
  const today = nowIso().slice(0, 10);
  if (choices.data.flownOn > addDays(today, 14)) return problem('flownOn', told('brief-too-early'));
  const aerodrome = await keptAerodrome(choices.data.aerodrome);
  if (aerodrome === undefined) return problem('aerodrome', told('aerodrome-unknown'));
  const context = {
    sheet: head.sheet,
    airframeCrosswindKt: head.airframe.crosswindLimitKt?.value ?? null,
    aerodrome: await aerodromeAt(aerodrome),
    house: await contentById('house', head.houseId),
    ladder: await ladderOf(head.pilotId, head.sheet, choices.data.flownOn),
    pilotName: head.pilotName,
    habits: habitCues((await differencesOf(head, choices.data.flownOn)).rows),
    eyeHeightM: await eyeHeightOf(head.pilotId, head.typeCode),
    dual: true,
    groundSamplesMin: await groundSamples(head.typeCode),
    nowIso: nowIso(),
  };
  // Home is named by nothing, so that a brief reads the same however it was chosen.
  const { aerodrome: _named, ...others } = choices.data;
  const stored: BriefChoices = aerodrome === null ? others : { ...others, aerodrome };
  const snapshot = computeBrief(stored, context);
  if (!snapshot.runways.some((r) => r.ident === choices.data.runwayEnd))
    return problem('runwayEnd', told('runway-unknown'));
  const tanksL = context.sheet.engine.usableFuelL.value;
  if (choices.data.fuelL > tanksL) return problem('fuelL', told('fuel-over-tanks', { usableL: tanksL }));
  return write(async (t) => {
    const done = await Briefs.first(
      { where: { requestId }, pick: ['id', 'sortieId'], with: { sortie: ['lesson'] } },
      t,
    );
    if (done) return { ok: true as const, sortieId: done.sortieId, briefId: done.id, lesson: done.sortie.lesson };
    const sorties = await sortiesOf(checkoutId, t);
    const latest = sorties[sorties.length - 1];
    const recorded = latest
      ? await CaptureEvents.first({ where: { sortieId: latest.id }, pick: ['eventId'] }, t)
      : null;
    const fresh = !latest || recorded !== null || latest.sharedWith !== null;
    if (fresh && latest && choices.data.flownOn < latest.flownOn)
      return problem('flownOn', told('before-last-lesson', { lesson: latest.lesson, flownOn: latest.flownOn }));
    const standing = fresh ? null : latest.brief;
    if ((standing?.id ?? null) !== parsed.data.base)
      return {
        ...problem(
          '',
          standing
            ? told('brief-saved-meanwhile', {
                by: standing.createdByName,
                lesson: latest?.lesson ?? 0,
                flownOn: standing.choices.flownOn,
                runwayEnd: standing.choices.runwayEnd,
                fuelL: standing.choices.fuelL,
              })
            : told('recorded-meanwhile', { lesson: latest?.lesson ?? 0 }),
        ),
        base: standing?.id ?? null,
      };
    const sortieId = fresh ? randomUUID() : latest.id;
    const lesson = fresh ? (latest?.lesson ?? 0) + 1 : latest.lesson;
    if (fresh)
      await Sorties.insert(
        {
          id: sortieId,
          checkoutId: checkoutId,
          lesson,
          flownOn: choices.data.flownOn,
          instructorId: user.id,
          createdAt: nowIso(),
          secondPilotId: null,
          secondCheckoutId: null,
          sharedWith: null,
          aerodrome,
          airframeId: head.airframeId,
        },
        t,
      );
    else
      await Sorties.update(
        { flownOn: choices.data.flownOn, instructorId: user.id, aerodrome, airframeId: head.airframeId },
        { id: sortieId },
        t,
      );
    const versions = await Briefs.find({ where: { sortieId }, pick: ['version'] }, t);
    const briefId = randomUUID();
    await Briefs.insert(
      {
        id: briefId,
        checkoutId: checkoutId,
        sortieId: sortieId,
        version: versions.length + 1,
        choices: stored,
        snapshot: snapshot,
        createdBy: user.id,
        createdAt: nowIso(),
        acknowledgedBy: null,
        acknowledgedAt: null,
        requestId: requestId,
        sheets: {
          type: head.typeVersionId,
          typeVersion: head.typeVersion,
          airframe: head.airframeVersionId,
        },
      },
      t,
    );
    return { ok: true as const, sortieId, briefId, lesson };
  });
}

const addDays = (isoDate: string, days: number): string =>
  new Date(Date.parse(isoDate) + days * 86_400_000).toISOString().slice(0, 10);

/** The pilot says: read and understood. Twice is once; of a lesson already flown it would say nothing. */
export async function acknowledgeBrief(user: CurrentUser, briefId: string): Promise<Result<object>> {
  return write(async (t) => {
    const brief = await Briefs.first(
      {
        where: { id: briefId },
        pick: ['acknowledgedAt', 'sortieId'],
        with: { checkout: ['pilotId'], sortie: ['lesson'] },
      },
      t,
    );
    if (!brief || !may.acknowledgeBrief(user, { pilotId: brief.checkout.pilotId }))
      return problem('', told('not-found'));
    if (brief.acknowledgedAt) return { ok: true as const };
    const landed = await Landings.first({ where: { sortieId: brief.sortieId }, pick: ['id'] }, t);
    if (landed) return problem('', told('flown-meanwhile', { lesson: brief.sortie.lesson }));
    await Briefs.update({ acknowledgedBy: user.id, acknowledgedAt: nowIso() }, { id: briefId }, t);
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
  if (!head || !may.runCheckout(user, head) || head.status !== 'open') return problem('', told('not-found'));
  const chosen = Object.fromEntries(
    topics.map((topic) => {
      const side = parsed.data.schools[topic.key];
      const known = side !== undefined && topic.sides.some((s) => s.key === side);
      return [topic.key, known ? side : (head.schools[topic.key] ?? topic.fallback)];
    }),
  );
  await write(async (t) => void (await Checkouts.update({ schools: chosen }, { id: head.id }, t)));
  return { ok: true };
}

export const TemplateForm = z.object({ checkoutId: z.string(), layout: BriefChoicesChecked.shape.layout });

/** Keeps a brief's order and own items as the house's start for the goals of this checkout. Chief only. */
export async function saveBriefTemplate(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = TemplateForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const head = await checkoutHead(parsed.data.checkoutId);
  if (!head || !may.changeHouse(user)) return problem('', told('chief-sets-order'));
  await write(async (t) => {
    for (const goal of head.goals)
      await BriefTemplates.put({ goal, layout: parsed.data.layout, author: user.name, createdAt: nowIso() }, t);
  });
  return { ok: true };
}

/** The versions a checkout could be moved to; empty when it runs under the newest. */
export async function newerVersions(
  head: CheckoutHead,
  t?: Transaction,
): Promise<{
  type: { id: string; version: number; sheet: TypeSheet } | null;
  airframe: { id: string; version: number; sheet: Airframe } | null;
}> {
  const type = await TypeVersions.first(
    {
      pick: ['id', 'version', 'sheet'],
      with: { type: { pick: [], where: { code: head.typeCode } } },
      order: ['-version'],
    },
    t,
  );
  const airframe = await AirframeVersions.first(
    {
      pick: ['id', 'version', 'sheet'],
      with: { airframe: { pick: [], where: { registration: head.registration } } },
      order: ['-version'],
    },
    t,
  );
  return {
    type:
      type && type.version > head.typeVersion
        ? { id: type.id, version: type.version, sheet: parsedSheet(type.id, type.sheet) }
        : null,
    airframe:
      airframe && airframe.version > head.airframeVersion
        ? { id: airframe.id, version: airframe.version, sheet: parsedAirframe(airframe.id, airframe.sheet) }
        : null,
  };
}

/**
 * Moves a checkout to the newest versions of its sheet, on purpose and with a reason. Briefs already saved keep their
 * snapshot.
 */
export async function moveCheckout(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = NewerSheetsForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const data = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const head = await checkoutHead(data.checkoutId, t);
    if (!head || !may.runCheckout(user, head) || head.status !== 'open') return problem('', told('not-found'));
    const { type, airframe } = await newerVersions(head, t);
    if ((type?.version ?? null) !== data.typeVersion || (airframe?.version ?? null) !== data.airframeVersion)
      return problem('', told('newer-version'));
    if (!type && !airframe) return problem('', told('newest-already'));
    const samples = samplesIn(type?.sheet ?? {}, airframe?.sheet ?? {});
    if (samples > 0) return problem('', told('samples', { count: samples }));
    await Checkouts.update(
      { ...(type ? { typeVersionId: type.id } : {}), ...(airframe ? { airframeVersionId: airframe.id } : {}) },
      { id: head.id },
      t,
    );
    await noteMove(user, head, data.reason, t, {
      typeTo: type?.version ?? head.typeVersion,
      airframeTo: airframe?.version ?? head.airframeVersion,
    });
    return { ok: true };
  });
}

/**
 * Goes on in another aeroplane of the same type, with its own sheet. Evidence is carried; what belongs to the airframe is
 * asked again, and a lesson that was briefed and not flown is briefed again. Lessons flown keep the aeroplane they were
 * flown in.
 */
export async function swapAeroplane(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = SwapForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { checkoutId, airframeId, reason } = parsed.data;
  const other = (await hangar()).flatMap((t) => t.airframes).find((a) => a.id === airframeId);
  return write(async (t): Promise<Result<object>> => {
    const head = await checkoutHead(checkoutId, t);
    if (!head || !may.runCheckout(user, head) || head.status !== 'open') return problem('', told('not-found'));
    if (!other) return problem('airframeId', told('aeroplane-unknown'));
    if (other.id === head.airframeId)
      return problem('airframeId', told('flown-already', { registration: other.registration }));
    if (other.effective.code !== head.typeCode)
      return problem('airframeId', told('other-type', { registration: other.registration, type: head.typeName }));
    const samples = samplesIn(other.effective, other.airframe);
    if (samples > 0) return problem('airframeId', told('samples', { count: samples }));
    const version = await AirframeVersions.first({ where: { id: other.versionId }, pick: ['version'] }, t);
    await Checkouts.update({ airframeId: other.id, airframeVersionId: other.versionId }, { id: head.id }, t);
    await noteMove(user, head, reason, t, {
      airframeTo: version?.version ?? 1,
      fromAirframeId: head.airframeId,
      toAirframeId: other.id,
    });
    return { ok: true };
  });
}
