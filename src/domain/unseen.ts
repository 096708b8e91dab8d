import type { CapturedLanding } from './capture';
import { NO_WORDS } from './criteria';

/**
 * A landing of which nothing was seen. What was recorded before a field existed says the same of it. Plain, without a
 * schema library.
 */
export const UNSEEN = {
  demonstration: false,
  intended: null,
  touched: null,
  along: null,
  lateral: null,
  fenceSpeed: null,
  drift: null,
  crab: null,
  swing: null,
  bounce: null,
  ...NO_WORDS,
  intervention: null,
  trigger: null,
  cleanTap: null,
  goAroundWord: null,
  goAroundExecution: {},
  wind: null,
  endedAt: null,
  gateSpeeds: {},
  peakG: null,
  helpedOn: [],
  landmark: null,
  notes: [],
  note: '',
  fromPaper: false,
  pilotId: null,
  serious: [],
  goAroundFrom: null,
  goAroundWhy: null,
  announced: null,
  travel: null,
  rollOutS: null,
  bubble: null,
  wheelsRepeated: null,
  ownWord: null,
  cue: '',
  replaces: null,
} satisfies Omit<CapturedLanding, 'kind' | 'runwayEnd'>;
