/** The catalogue of signing: what stands between a checkout and its signature, each as one sentence. */
import { type Coded, sentence } from '@/domain/coded';
import { say } from '@/domain/words';
import { dateText, list } from '../format';
import { type Missing, missingLine } from './evidence-words';

interface OfItem {
  id: string;
  title: string;
}
export const SIGNING_WORDS = {
  own: () => 'Nobody signs for themselves. Another instructor signs this checkout.',
  'not-authorised': () => 'You are not authorised to sign this goal. The chief instructor grants it.',
  /** The last day it was valid; null = not on record. */
  certificate: ({ until }: { until: string | null }) =>
    until === null
      ? 'The end of your certificate or recent experience is not on record. Enter it on your page under People.'
      : `Your certificate or recent experience ended on ${dateText(until)}.`,
  lacks: ({ kinds }: { kinds: readonly string[] }) =>
    `This aeroplane requires what you do not hold: ${kinds.map(say).join(', ')}.`,
  rating: ({ text, citation }: { text: string; citation: string }) =>
    `The law requires ${text} to teach and sign this (${citation}), and it is not on your record.`,
  'model-hours': (h: { have: number; needed: number; inCommand: boolean; within: string; citation: string }) =>
    `You have ${Math.floor(h.have * 10) / 10} h ${h.inCommand ? 'known to be in command' : 'in command'} in ` +
    `this ${h.within}; ${h.needed} h are required (${h.citation}).`,
  'not-recent': ({ title, restore, citation }: { title: string; restore: string; citation: string }) =>
    `You are out of recency to teach this type. ${title}: fly ${restore} first (${citation}).`,
  /** Days since the last flight together; null = never. */
  'not-flown': ({ days, withinDays }: { days: number | null; withinDays: number }) =>
    days === null
      ? 'You have no flight with this pilot in this type. The signer has flown with the pilot.'
      : `Your last flight with this pilot was ${days} days ago; the school requires one within ${withinDays} days.`,
  refused: ({ id, title, on, by, where }: OfItem & { on: string; by: string; where: 'ground' | 'flight' }) =>
    `${id} ${title}: further training was entered on ${dateText(on)} by ${by}. It is ` +
    `${where === 'ground' ? 'shown' : 'flown'} again before anybody signs, and cannot be overridden.`,
  'not-seen': ({ id, title, missing }: OfItem & { missing: readonly Missing[] }) =>
    `${id} ${title} is a safety item and nothing of it has been seen: ${missingLine(missing)}. It cannot be overridden.`,
  legal: ({ id, title, missing, citation }: OfItem & { missing: readonly Missing[]; citation: string }) =>
    `${id} ${title}: ${missingLine(missing)}. The law requires it (${citation}), so nobody can override it.`,
  override: ({ id, title }: OfItem) => `${id} ${title}: the override is waiting for the chief instructor.`,
  item: ({ id, title, missing }: OfItem & { missing: readonly Missing[] }) =>
    `${id} ${title}: ${missingLine(missing)}.`,
  limit: ({ what, flownOn }: { what: string; flownOn: string }) =>
    `A limit was exceeded on ${dateText(flownOn)} and is not released: ${what}. A chief who neither flew nor taught it releases it.`,
  trigger: ({ lesson, number }: { lesson: number; number: number }) =>
    `Lesson ${lesson}, landing ${number}: the go-around trigger was met and the approach continued. It is ` +
    'resolved by a go-around decided in time.',
  stop: ({ name, words }: { name: string; words: string }) =>
    `${name} was flown past a stop and no reason is given: ${words}.`,
  prerequisite: ({ text, known }: { text: string; known: boolean }) =>
    known
      ? `Before this goal: ${text}.`
      : `Before this goal: ${text}. It is not on record: enter it on the person’s page.`,
  class: ({ classes }: { classes: readonly string[] }) =>
    `A review is flown in a class the pilot is rated for; ${classes.map(say).join(', ')} is not held.`,
  sheet: ({ facts }: { facts: readonly string[] }) =>
    `The sheet does not give ${list(facts)}, so what this aeroplane requires is not known. Complete the ` +
    'sheet, update this checkout to it, then sign.',
};
export type SigningSaid = Coded<typeof SIGNING_WORDS>;
export const signingWords = (p: SigningSaid): string => sentence(SIGNING_WORDS, p);

/**
 * A flown lesson whose brief was not the day's: it is told, and holds nothing up, for what was flown is not briefed again.
 * @param days between acknowledgement and flight; null = not acknowledged at all
 * @example flownUnread({ lesson: 2, days: null }) // 'Lesson 2 was flown on a brief the pilot had not acknowledged.'
 */
export const flownUnread = ({ lesson, days }: { lesson: number; days: number | null }): string =>
  days === null
    ? `Lesson ${lesson} was flown on a brief the pilot had not acknowledged.`
    : `Lesson ${lesson} was flown on a brief acknowledged ${days} days before: it was not that day’s.`;
