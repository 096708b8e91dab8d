import { dateText, list } from '@/core/format';
import { mostIn24h } from '@/core/recency';
import { dayText, later, type Span } from '@/core/schedule';
import type { RulePack } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { type Goal, say as sayKind } from '@/domain/words';
import type { Transaction } from 'sequelize';
import type { CurrentUser } from '../../floor/auth/permissions';
import { type Problem, problemAt } from '../../floor/result';
import type { Told } from '../../floor/sentences';
import * as ask from '../../floor/statements/schedule';
import { teachState } from '../../people/queries/recency';
import { contentById, newestContent } from '../../rules/content';
import { type SchoolFacts, flightSpan } from '../queries/day';
import { told } from '../sentences';

/** More flight training in 24 hours than the law allows an instructor to give, counted over what is booked. */
export async function trainingProblem(
  instructor: CurrentUser,
  bookingId: string | null,
  flight: Span,
  school: SchoolFacts,
  t: Transaction,
): Promise<Told | null> {
  const limit = (await newestContent('pack', school.house.homePack, t))?.body.trainingIn24h ?? null;
  if (!limit) return null;
  const booked = await ask.trainingProblem.all(
    { id: instructor.id, booking: bookingId, from: later(flight.from, -1440), to: later(flight.to, 1440) },
    t,
  );
  const spans = booked.flatMap((b) => (b.split === null ? [] : [flightSpan(b.startsAt, b.split)]));
  const minutes = mostIn24h([...spans, flight]);
  return minutes > limit.hours * 60 && minutes > mostIn24h(spans)
    ? told('training-limit', {
        name: instructor.name,
        hours: Math.ceil(minutes / 6) / 10,
        mostHours: limit.hours,
        citation: limit.citation,
      })
    : null;
}

/** Why an instructor may not teach an aeroplane on a day, each with what restores it. */
export async function teachProblems(
  instructor: CurrentUser,
  of: { sheet: TypeSheet; packId: string | null; houseId: string | null; goals: Goal[] },
  date: string,
  t: Transaction,
): Promise<Problem[]> {
  const house =
    of.houseId === null ? (await newestContent('house', 'house', t))?.body : await contentById('house', of.houseId, t);
  if (!house) return [];
  const pack: RulePack | undefined =
    of.packId === null
      ? (await newestContent('pack', house.homePack, t))?.body
      : await contentById('pack', of.packId, t);
  if (!pack) return [];
  const state = await teachState(instructor, { sheet: of.sheet, pack, house, goals: of.goals }, date, t);
  const say = (what: Told): Problem => problemAt('instructorId', what);
  return [
    ...state.notRecent.map((r) =>
      say(
        told('not-recent-to-teach', {
          name: instructor.name,
          type: of.sheet.name,
          date: dayText(date),
          restore: r.restore,
          citation: r.citation,
        }),
      ),
    ),
    ...state.ratings.map((r) =>
      say(told('lacks-rating', { name: instructor.name, rating: r.text, citation: r.citation })),
    ),
    ...(state.lacks.length > 0
      ? [
          say(
            told('lacks-kinds', { name: instructor.name, kinds: list(state.lacks.map(sayKind)), type: of.sheet.name }),
          ),
        ]
      : []),
    ...(state.modelHours && state.modelHours.have < state.modelHours.needed
      ? [say(told('model-hours', { ...state.modelHours, name: instructor.name, type: of.sheet.name }))]
      : []),
    ...(state.certificateUntil !== null && state.certificateUntil < date
      ? [say(told('certificate-ends', { name: instructor.name, on: dateText(state.certificateUntil) }))]
      : []),
  ];
}
