/** The catalogue of a proposed lesson: the title of each block, why it is there, why something is left for later. */
import { type Coded, sentence } from '@/domain/coded';
import type { PlanBlock } from '@/domain/plan';
import { LAB_TITLES, type LabPage } from '@/domain/lab-pages';
import { say } from '@/domain/words';
import { type Missing, missingLine } from '../assess/evidence-words';
import { fixed, list, plural } from '../format';

export const BLOCK_TITLES = {
  /** An item of the programme; 0 circuits where it is not flown in circuits. */
  item: ({ id, title, circuits }: { id: string; title: string; circuits: number }) =>
    circuits > 0 ? `${id} ${title}, ${plural(circuits, 'circuit')}` : `${id} ${title}`,
  /** What a finding proposes, as its own catalogue says it. */
  finding: ({ title }: { title: string }) => title,
  lab: ({ page }: { page: LabPage }) => `From the lab: ${LAB_TITLES[page]}`,
  'warm-up': ({ circuits, attitude }: { circuits: number; attitude: string }) =>
    `${plural(circuits, 'circuit')}, ${say(attitude)}`,
  'wind-step': ({ forecastKt }: { forecastKt: number }) => `Crosswind ${fixed(forecastKt)} kt, the next step`,
  'end-on': ({ attitude }: { attitude: string }) => `End well: one ${say(attitude)} landing, full stop`,
  'end-quietly': () => 'End well: one quiet circuit, full stop',
};
export type BlockTitle = Coded<typeof BLOCK_TITLES>;

export const WIND_WORDS = {
  'no-forecast': () => 'no forecast for this time',
  above: ({ forecastKt, stepKt }: { forecastKt: number; stepKt: number }) =>
    `forecast crosswind up to ${fixed(forecastKt)} kt, more than the next step of ${fixed(stepKt)} kt: ` +
    'another time, another runway, or the instructor\u2019s landings',
  step: ({ forecastKt, provenKt, stepKt }: { forecastKt: number; provenKt: number; stepKt: number }) =>
    `forecast crosswind up to ${fixed(forecastKt)} kt, between the proven ${fixed(provenKt)} kt and the next step of ${fixed(stepKt)} kt`,
  proven: ({ forecastKt, provenKt }: { forecastKt: number; provenKt: number }) =>
    `forecast crosswind up to ${fixed(forecastKt)} kt, within the proven ${fixed(provenKt)} kt`,
};
export type WindSaid = Coded<typeof WIND_WORDS>;
export const lessonWindWords = (w: WindSaid): string => sentence(WIND_WORDS, w);

const open = (missing: readonly Missing[]): string => `Open: ${missingLine(missing) || 'to be shown'}.`;

export const BLOCK_WHYS = {
  open: ({ missing }: { missing: readonly Missing[] }) => open(missing),
  'new-attitude': ({ owned, missing }: { owned: readonly string[]; missing: readonly Missing[] }) =>
    `New: ${list(owned.map(say))} is mastered. ${open(missing)}`,
  'first-landings': () => 'The first landings of this checkout, in the attitude of its landing technique.',
  'days-away': ({ days }: { days: number }) => `${days} days since the last flight: warm up before anything else.`,
  'warm-up-on-owned': () => 'What is mastered, as a warm-up.',
  'warm-up-on-flown': () => 'What was flown before, as a warm-up.',
  finding: ({ title, numbers }: { title: string; numbers: readonly { label: string; text: string }[] }) =>
    `${title}: ${numbers.map((n) => `${n.label}: ${n.text}`).join(', ')}.`,
  'lab-finding': ({ title, set }: { title: string; set: string | null }) =>
    `Explains: ${title}.${set === null ? '' : ` ${set}`}`,
  'wind-step': ({ provenKt, stepKt, wind }: { provenKt: number; stepKt: number; wind: WindSaid }) =>
    `Proven crosswind ${fixed(provenKt)} kt, the next step allows ${fixed(stepKt)} kt; ${lessonWindWords(wind)}`,
  praise: ({ title, number }: { title: string; number: string }) =>
    `And say it: ${title.charAt(0).toLowerCase()}${title.slice(1)}, ${number}.`,
  'end-on-owned': ({ attitude }: { attitude: string }) => `${say(attitude)} landings are mastered: end on one.`,
  'end-well': () => 'Stop while it goes well.',
};
export type BlockWhy = Coded<typeof BLOCK_WHYS>;

export const LATER_WORDS = {
  'no-ground-time': () => 'the booking leaves no time for it before the flight',
  'does-not-fit': ({ minutes, leftMin, limitedBy }: { minutes: number; leftMin: number; limitedBy: string }) =>
    `${minutes} min do not fit in the ${leftMin} min left by the ${limitedBy}`,
  'no-room': ({ limitedBy }: { limitedBy: string }) => `no room left by the ${limitedBy}`,
  'later-lesson': ({ lesson }: { lesson: number }) => `begins in lesson ${lesson}`,
  'first-items': ({ ids }: { ids: readonly string[] }) => `needs ${list(ids)} first`,
  'one-new-thing': ({ title }: { title: BlockTitle }) => `one new thing at a time: ${sentence(BLOCK_TITLES, title)}`,
  rebuilding: () => 'nothing new while something is being rebuilt',
  'too-little-wind': () => 'the forecast has too little wind for it',
  'not-today': () => 'not today',
  'go-arounds-once': () => 'go-arounds of one item are enough for one lesson',
  'wind-asked': ({ askedKt, forecastKt }: { askedKt: number; forecastKt: number }) =>
    `it needs a crosswind of ${fixed(askedKt)} kt, the forecast has ${fixed(forecastKt)} kt`,
  'no-room-before': () => 'what comes before it found no room in this lesson',
};
export type LaterWhy = Coded<typeof LATER_WORDS>;
export const laterWords = (why: LaterWhy): string => sentence(LATER_WORDS, why);

export const blockTitle = (title: BlockTitle): string => sentence(BLOCK_TITLES, title);

/** A block before it is put into words. */
export type ProposedBlock = Omit<PlanBlock, 'title' | 'why'> & { title: BlockTitle; why: BlockWhy };
export interface LessonProposal {
  blocks: ProposedBlock[];
  /** Minutes in the air and on the ground, and what there is. */
  flightMin: number;
  flightRoomMin: number;
  groundMin: number;
  limitedBy: 'booking' | 'fuel';
  wind: { said: WindSaid; state: 'none' | 'below' | 'step' | 'above' };
  /** What did not find room, each with its reason. */
  left: { title: BlockTitle; why: LaterWhy }[];
  focus: BlockTitle[];
}

/** Characters a plan holds of a reason; what is missing of an item may be longer. */
const MOST_WHY = 300;
const cut = (text: string): string =>
  text.length <= MOST_WHY ? text : `${text.slice(0, text.lastIndexOf(';', MOST_WHY - 12))}; and more.`;
/** What is saved and edited of a proposed block: its words, cut to what a plan may hold. */
export const blockInWords = (b: ProposedBlock): PlanBlock => ({
  ...b,
  title: blockTitle(b.title),
  why: cut(sentence(BLOCK_WHYS, b.why)),
});

/** A proposal as a screen shows it and a plan is begun from. */
export const proposalInWords = (p: LessonProposal) => ({
  ...p,
  blocks: p.blocks.map(blockInWords),
  wind: { words: lessonWindWords(p.wind.said), state: p.wind.state },
  left: p.left.map((l) => ({ title: blockTitle(l.title), why: laterWords(l.why) })),
  focus: p.focus.map(blockTitle),
});
export type ProposalInWords = ReturnType<typeof proposalInWords>;
