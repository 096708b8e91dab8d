/** The catalogue of what is ready for a booking and what is not. */
import { dateText, list } from '@/core/format';
import { type FitSaid, fitWords } from '@/core/schedule';
import { type Coded, coder, sentence } from '@/domain/coded';

interface Lesson {
  lesson: number;
}
export const READY_WORDS = {
  'brief-missing': () => 'the lesson is not briefed yet',
  'brief-old': ({ lesson, days }: Lesson & { days: number }) =>
    `lesson ${lesson} acknowledged ${days} days before: brief it again`,
  'brief-read': ({ lesson }: Lesson) => `lesson ${lesson} acknowledged`,
  'brief-unread': ({ lesson }: Lesson) => `lesson ${lesson} briefed, not acknowledged yet`,
  'instructor-recent': ({ name, until }: { name: string; until: string | null }) =>
    `${name} recent in the type${until ? ` to ${dateText(until)}` : ''}`,
  'instructor-not': ({ name, restore, lacks, certificateEnded }: InstructorNot) =>
    `${name} out of recency: ${[
      ...restore.map((r) => `${r} restore it`),
      ...(lacks.length > 0 ? [`does not hold ${list(lacks)}`] : []),
      ...(certificateEnded ? ['certificate ended'] : []),
    ].join('; ')}`,
  'pilot-dates-hold': () => 'medical and review valid',
  'pilot-dates-ended': ({ what, on }: { what: readonly string[]; on: string | null }) =>
    `${list(what)} ended${on ? ` ${dateText(on)}` : ''}`,
  'pilot-dates-missing': ({ what }: { what: readonly string[] }) => `no date for ${list(what)}`,
  'airframe-in-service': ({ registration }: { registration: string }) => `${registration} in service, nothing open`,
  'airframe-out': ({ registration, why }: { registration: string; why: readonly string[] }) =>
    `${registration} is out of service: ${list(why)}`,
  wind: ({ said }: { said: FitSaid }) => fitWords(said),
} as const;
interface InstructorNot {
  name: string;
  /** What restores it. */
  restore: readonly string[];
  /** What is not held that has to be. */
  lacks: readonly string[];
  certificateEnded: boolean;
}
export type ReadyCode = Coded<typeof READY_WORDS>;
export const readyCode = coder(READY_WORDS);
/** What is ready or not, in words. */
export const readyWords = (said: ReadyCode): string => sentence(READY_WORDS, said);
