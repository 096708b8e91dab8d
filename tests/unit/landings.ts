import { readFileSync } from 'node:fs';
import { type DebriefLanding, judgeCaptured } from '@/core/assess';
import type { CapturedLanding } from '@/domain/capture';
import { Standard } from '@/domain/programme';
import { UNSEEN } from '@/domain/unseen';

export const standard = Standard.parse(JSON.parse(readFileSync('content/standards/private-us.json', 'utf8')));
const NONE = { band: 'none', side: null } as const;
/** A clean landing of which everything was seen. */
export const CLEAN: CapturedLanding = {
  ...UNSEEN,
  kind: 'full-stop',
  runwayEnd: '22',
  intended: 'three-point',
  touched: 'three-point',
  along: 'in-the-box',
  lateral: 'line',
  drift: NONE,
  crab: NONE,
  swing: NONE,
  bounce: { count: 0, handling: null },
  aileron: 'kept',
  stick: 'kept',
  rollout: 'kept',
  configuration: 'right',
  firmness: 'normal',
  intervention: 0,
  trigger: 'not-met',
  fenceSpeed: 60,
};
export const BRIEFED = [
  { name: 'Base', target: 70 },
  { name: 'Final', target: 65 },
  { name: 'Threshold', target: 60 },
];

/** A judged landing, clean but for what is given. */
export function flown(
  number: number,
  over: Partial<CapturedLanding> = {},
  lesson = 1,
  extra: Partial<DebriefLanding> = {},
): DebriefLanding {
  const captured = { ...CLEAN, ...over };
  return {
    id: `l${lesson}-${number}`,
    number,
    sortieId: `s${lesson}`,
    lesson,
    date: `2026-10-${String(lesson * 3).padStart(2, '0')}`,
    firstOfSortie: number === 1,
    group: 'light-tailwheel',
    kind: captured.kind,
    intended: captured.intended,
    crosswindKt: 4,
    judged: judgeCaptured(captured, {
      standard,
      fenceTarget: 60,
      ktPerUnit: 1,
      unit: 'kt',
      measured: extra.measured?.values ?? null,
    }),
    captured,
    measured: null,
    briefed: BRIEFED,
    gates:
      captured.fenceSpeed === null
        ? []
        : [{ gate: 'Threshold', offKt: captured.fenceSpeed - 60, highFt: null, source: 'eye' }],
    ...extra,
  };
}
