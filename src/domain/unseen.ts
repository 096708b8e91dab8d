import type { CapturedLanding } from './capture';

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
  aileron: null,
  stick: null,
  configuration: null,
  firmness: null,
  intervention: null,
  trigger: null,
  cleanTap: null,
  goAroundWord: null,
  goAroundExecution: {},
  wind: null,
  endedAt: null,
  gateSpeeds: {},
  rollout: null,
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
  replaces: null,
} satisfies Omit<CapturedLanding, 'kind' | 'runwayEnd'>;
