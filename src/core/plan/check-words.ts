/** The catalogue of what is wrong in packs, programmes and patterns, as the content check prints it. */
import { type Coded, sentence } from '@/domain/coded';
import { FACT_WORDS } from './goals';

/** Why an item can never be met in a type. */
export const UNMEETABLE_WORDS = {
  'tailwheel-attitude': ({ attitude }: { attitude: string }) =>
    `needs a ${attitude} landing of an aeroplane without a tailwheel`,
  'wheel-landings': () => 'needs wheel landings the maker does not allow',
  water: () => 'needs water',
  land: () => 'needs land',
  'gear-checks': () => 'needs wheels to be set against a surface',
  crosswind: ({ askedKt, mostKt }: { askedKt: number; mostKt: number }) =>
    `needs a crosswind of ${askedKt} kt, where ${mostKt} kt is the most allowed`,
  'second-engine': () => 'needs an engine failure with another engine running',
  'power-table': () => 'needs a power table the sheet has not',
  'tailwheel-seen': () => 'needs what is seen of a tailwheel',
};
export type Unmeetable = Coded<typeof UNMEETABLE_WORDS>;

export const CONTENT_WORDS = {
  'no-text': () => 'says nothing of what is to be shown',
  'no-citation': () => 'cites neither the law nor the school',
  'no-prerequisite': ({ id }: { id: string }) => `waits for ${id}, which is not of this programme`,
  circle: () => 'waits for itself',
  'legal-and-free': () => 'is required by law and waived without a reference',
  'no-safety': () => 'names no safety item',
  'goal-missing': ({ goal }: { goal: string }) => `maps to ${goal}, which the pack does not have`,
  'no-goal': ({ kind }: { kind: string }) => `demands ${kind}, which no goal gives`,
  'no-programme': () => 'has no programme',
  'nothing-to-sign': () => 'has no citation or no text to sign',
  'unknown-fact': ({ fact }: { fact: string }) => `the sheet does not give ${FACT_WORDS[fact] ?? fact}`,
  'cannot-be-met': ({ why }: { why: Unmeetable }) => sentence(UNMEETABLE_WORDS, why),
  'no-such-fact': ({ fact, over }: { fact: string; over: string }) => `reads ${fact}, which ${over} do not have`,
};
/** What is wrong. */
export type ContentWrong = Coded<typeof CONTENT_WORDS>;
/** Where something is wrong, and what. */
export type ContentFinding = { where: string } & ContentWrong;
/** What is wrong, without its place. */
export const contentWords = (f: ContentFinding): string => sentence(CONTENT_WORDS, f);
