/** What was noted of a landing or an item beside its criteria, in words for the debrief. */
import { AIRWORK_QUANTITIES, FORM_NAME, QUANTITY_NAME } from '@/domain/airwork';
import type { AirworkDetail, CapturedLanding } from '@/domain/capture';
import { say } from '@/domain/words';
import { fixed, list, withUnit } from '../format';

const signed = (x: number): string => `${x >= 0 ? '+' : '\u2013'}${fixed(Math.abs(x))}`;

/**
 * Gates read, load, landmark, help and notes, each only when it was seen; empty when nothing was.
 * @returns phrases, in order
 */
export function landingNoted(
  l: Partial<CapturedLanding>,
  gates: readonly { name: string; target: number | null }[],
  unit: string,
): string[] {
  const read = Object.entries(l.gateSpeeds ?? {}).map(([name, speed]) => {
    const target = gates.find((g) => g.name === name)?.target ?? null;
    return `${name.toLowerCase()} ${withUnit(speed, unit)}${target === null ? '' : ` (${signed(speed - target)})`}`;
  });
  return [
    ...(read.length > 0 ? [`read at ${list(read)}`] : []),
    ...(l.peakG == null ? [] : [`greatest load ${withUnit(l.peakG, 'g', 1)}`]),
    ...(l.cue ? [`cue given: \u201c${l.cue}\u201d`] : []),
    ...(l.wheelsRepeated ? [`wheels ${l.wheelsRepeated === 'said' ? 'said again' : 'not said again'} on final`] : []),
    ...(l.ownWord ? [`the pilot\u2019s word: ${say(l.ownWord)}`] : []),
    ...(l.rollOutS == null ? [] : [`rolled out in ${withUnit(l.rollOutS, 's')}`]),
    ...(l.travel ? [`control moved ${say(l.travel)}`] : []),
    ...(l.bubble ? [`power ${say(l.bubble)}`] : []),
    ...(l.landmark ? [`landmark ${say(l.landmark)}`] : []),
    ...((l.helpedOn ?? []).length > 0 ? [`assisted on ${list((l.helpedOn ?? []).map(say))}`] : []),
    ...((l.notes ?? []).length > 0 ? [`also seen: ${list((l.notes ?? []).map((n) => n.replaceAll('-', ' ')))}`] : []),
    ...(l.note ? [`\u201c${l.note}\u201d`] : []),
    ...(l.fromPaper ? ['entered from paper'] : []),
  ];
}

/**
 * An item's detail in one line: what was set, the extremes, the cue, the answer. Empty for one judged as seen.
 * @returns one line
 * @example
 * detailNoted({ form: 'numbers', kind: 'steep-turn', set: { bank: 45 }, seen: { height: -50, speed: 'inside' } },
 * 'kt')
 * // 'Steep turn; set bank 45 °; greatest height –50 ft and speed inside'
 */
export function detailNoted(d: AirworkDetail | null, unit: string): string {
  if (!d) return '';
  const extremes = (seen: Extract<AirworkDetail, { form: 'numbers' }>['seen']) =>
    AIRWORK_QUANTITIES.flatMap((q) =>
      seen[q] === undefined
        ? []
        : [`${QUANTITY_NAME[q]} ${seen[q] === 'inside' ? 'inside' : `${signed(seen[q])} ${unitOf(q, unit)}`}`],
    );
  const set = (values: Partial<Record<string, number>>) =>
    AIRWORK_QUANTITIES.flatMap((q) =>
      values[q] === undefined ? [] : [`${QUANTITY_NAME[q]} ${fixed(values[q])} ${unitOf(q, unit)}`],
    );
  const parts = (...p: (string | false | null)[]) => p.filter((x): x is string => Boolean(x)).join('; ');
  switch (d.form) {
    case 'numbers':
      return parts(
        FORM_NAME[d.kind],
        set(d.set).length > 0 && `set ${list(set(d.set))}`,
        extremes(d.seen).length > 0 && `greatest ${list(extremes(d.seen))}`,
      );
    case 'stall':
      return parts(
        `${d.stall} stall`,
        d.cue && `${say(d.cue)}${d.cueSpeed === null ? '' : ` at ${withUnit(d.cueSpeed, unit)}`}`,
        d.recovery && say(d.recovery),
        d.heightLostFt !== null && `${withUnit(d.heightLostFt, 'ft')} lost`,
        extremes(d.seen).length > 0 && `greatest ${list(extremes(d.seen))}`,
      );
    case 'energy':
      return parts(
        say(d.item),
        `in ${box(d.entry, unit)}`,
        `out ${box(d.exit, unit)}${d.reciprocal ? ' on the reciprocal' : ''}`,
      );
    case 'asymmetric':
      return parts(
        say(d.item),
        d.firstCue && `first cue ${say(d.firstCue)}`,
        d.recovery && `recovered ${say(d.recovery)}`,
        extremes(d.seen).length > 0 && `greatest ${list(extremes(d.seen))}`,
      );
    case 'steps':
    case 'exchange':
      return parts(d.list, `${new Set(d.ticks).size} of ${d.steps.length} said`);
    case 'handling':
      return parts(
        d.throttleS !== null && `throttle opened over ${withUnit(d.throttleS, 's', 1)}`,
        d.travel && `control moved ${say(d.travel)}`,
        d.bubble && `power ${say(d.bubble)}`,
        d.slipLeft && `slip left ${say(d.slipLeft)}`,
      );
    case 'surprise':
      return parts(
        `asked on ${d.leg} at ${withUnit(d.heightFt, 'ft')}`,
        `answered ${d.answer}`,
        `the model ${d.model}`,
      );
  }
}
const unitOf = (q: string, unit: string): string =>
  q === 'speed' ? unit : q === 'height' || q === 'levelOff' ? 'ft' : q === 'entryRate' ? 'kt/s' : '\u00b0';
const box = (b: { heightFt: number | null; speed: number | null; headingDeg: number | null }, unit: string): string =>
  [
    b.heightFt === null ? null : withUnit(b.heightFt, 'ft'),
    b.speed === null ? null : withUnit(b.speed, unit),
    b.headingDeg === null ? null : `${String(Math.round(b.headingDeg)).padStart(3, '0')}\u00b0`,
  ]
    .filter(Boolean)
    .join(', ') || 'not seen';
