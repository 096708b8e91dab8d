'use client';
import Button from 'react-bootstrap/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import {
  type Pace,
  type PaceRunway,
  type PaceSheet,
  type ReachEnd,
  type ReachSample,
  TASK_GAP_S,
  circuitPace,
  endPlaces,
  propellerDrag,
  sheetSpacing,
} from '@/core/circuit';
import { airToday, runwayToday } from '@/core/approach';
import { density, pressureAltitude } from '@/core/air';
import { direction, downTo, fixed, list, plural, upTo, withUnit } from '@/core/format';
import { sheetOn, surfaceOfStrip } from '@/core/sheet';
import { components } from '@/core/wind';
import type { House } from '@/domain/programme';
import { labWorker } from '@/workers';
import { Field } from '../shared/field';
import { Outranked, Panel } from '../shared/parts';
import { Verdict } from '../shared/verdict';
import { CircuitDrawing, type Strip, TaskTimeline } from './circuit-drawing';
import { LabBar, type LabContext } from './lab-bar';
import { useQueryState } from './query-state';
import { Range } from './range';
import type { CircuitState } from './starts';
import { useWorker } from './use-worker';

export interface LabStrip {
  surface: string;
  lengthM: number;
  widthM: number;
  /** Rising in the direction of use of each end, per cent. */
  slopes: number[];
  elevationFt: number;
  eastM: number;
  northM: number;
  ends: { ident: string; trueBearingDeg: number; circuit?: 'left' | 'right' | undefined }[];
}
interface Props {
  context: LabContext;
  sheet: PaceSheet;
  oldSheet: PaceSheet;
  strips: LabStrip[];
  initial: CircuitState;
  start: CircuitState;
  /** Factors of the school for the landing distance; null = no house, no distance ahead. */
  houseRunway: House['runway'] | null;
  turnBack: { heightFt: number; source: string };
  windSource: string;
  word: string;
}

/**
 * The circuit to scale and against the clock, the old type under the new; and where it comes down if the engine stops.
 */
export function Circuit(props: Props) {
  const { context, sheet, oldSheet, strips, start } = props;
  const [state, set] = useQueryState(start, props.initial);
  const usable = useMemo(
    () =>
      strips.filter((s) =>
        sheet.surface === 'amphibian' ? true : sheet.surface === 'sea' ? s.surface === 'water' : s.surface !== 'water',
      ),
    [strips, sheet.surface],
  );
  const strip = usable.find((s) => s.ends.some((e) => e.ident === state.runway)) ?? usable[0];
  const end = strip?.ends.find((e) => e.ident === state.runway) ?? strip?.ends[0];
  const runway: PaceRunway | null =
    strip && end
      ? {
          ident: end.ident,
          trueBearingDeg: end.trueBearingDeg,
          lengthM: strip.lengthM,
          elevationFt: strip.elevationFt,
          surface: strip.surface,
        }
      : null;
  const sigma = density(pressureAltitude(strip?.elevationFt ?? 0, 1013.25), state.oat, null).sigma;
  const choices = {
    side: state.side,
    windFromDeg: state.wdir,
    windKt: state.wkt,
    sigma,
    circuitHeightFt: state.height,
    crosswindTurnFt: state.turn,
    bankDeg: state.bank,
    baseAngleDeg: state.base,
  };
  const key = JSON.stringify([choices, state.spacing, runway]);
  const [pace, old] = useMemo(
    () =>
      runway
        ? [
            circuitPace(sheet, runway, { ...choices, spacingM: state.spacing }),
            circuitPace(oldSheet, runway, { ...choices, spacingM: null }),
          ]
        : [null, null],
    // The key holds every choice.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [key, sheet, oldSheet],
  );
  const ends: ReachEnd[] = useMemo(() => (runway ? endPlaces(runway, usable) : []), [runway?.ident, usable]); // eslint-disable-line react-hooks/exhaustive-deps
  const reachChoices = {
    sigma,
    windFromDeg: state.wdir,
    windKt: state.wkt,
    bankDeg: state.glide,
    reactionS: state.react,
    turnBackFt: props.turnBack.heightFt,
    over50M: strip && end ? landingToday(sheet, props.houseRunway, strip, end, state) : null,
  };
  const asked = pace && runway && pace.points.length > 0 ? JSON.stringify([key, reachChoices, sheet.name]) : null;
  const reach = useWorker<ReachSample[]>(asked, () =>
    labWorker().reach(
      sheet,
      pace?.points ?? [],
      { trueBearingDeg: runway?.trueBearingDeg ?? 0, lengthM: runway?.lengthM ?? 0, surface: runway?.surface ?? '' },
      ends,
      reachChoices,
    ),
  );
  const [surprise, setSurprise] = useState<{ at: ReachSample; answer: string | null } | null>(null);
  const total = Math.max(pace?.totalTimeS ?? 0, old?.totalTimeS ?? 0);
  const atS = Math.min(state.at, total);
  const playing = usePlayClock(atS, total, (at) => set({ at }));
  if (!runway || !pace || !old)
    return (
      <Panel title="No runway">
        <p className="mb-0">No runway of this aerodrome suits this type.</p>
      </Panel>
    );
  const hidden = surprise !== null && surprise.answer === null;
  const windText = `${direction(state.wdir)}/${String(Math.round(state.wkt)).padStart(2, '0')} true`;
  const ask = () => {
    const samples = reach.value;
    if (!samples || samples.length === 0) return;
    playing.stop();
    const pick = samples[Math.floor(Math.random() * samples.length)];
    if (pick) {
      setSurprise({ at: pick, answer: null });
      set({ at: pick.tS });
    }
  };
  return (
    <div className="grid">
      <LabBar context={context} withOld />
      <div className="grid g-2-1">
        <Panel title={`${runway.ident}, ${state.side}-hand, wind ${windText}`}>
          {pace.problem ? (
            <p className="trouble">{pace.problem}</p>
          ) : (
            <>
              <CircuitDrawing
                pace={pace}
                old={old}
                reach={hidden ? null : reach.value}
                runwayDeg={runway.trueBearingDeg}
                atS={atS}
                windFromDeg={state.wdir}
                windKt={state.wkt}
                windText={windText}
                names={[sheet.name, oldSheet.name]}
                picked={surprise?.at ?? null}
                strips={usable.map((s): Strip => ({
                  ident: s.ends[0]?.ident ?? '',
                  other: s.ends[1]?.ident ?? '',
                  east: s.eastM + shift(runway, usable).east,
                  north: s.northM + shift(runway, usable).north,
                  lengthM: s.lengthM,
                  widthM: s.widthM,
                  bearingDeg: s.ends[0]?.trueBearingDeg ?? 0,
                  surface: s.surface,
                }))}
              />
              <ul className="legend">
                <li>
                  <svg width="34" height="12" aria-hidden>
                    <path d="M1 6H33" stroke="var(--meadow)" strokeWidth="9" />
                  </svg>{' '}
                  reaches, 200 ft in hand
                </li>
                <li>
                  <svg width="34" height="12" aria-hidden>
                    <path d="M1 6H33" stroke="var(--ochre)" strokeWidth="6" strokeDasharray="10 6" />
                  </svg>{' '}
                  doubtful
                </li>
                <li>
                  <svg width="34" height="12" aria-hidden>
                    <path d="M1 6H33" stroke="var(--brick)" strokeWidth="4" strokeDasharray="2 7" />
                  </svg>{' '}
                  no runway in range
                </li>
                <li>
                  <svg width="34" height="12" aria-hidden>
                    <path d="M1 6H33" stroke="var(--slate)" strokeWidth="2" strokeDasharray="3 6" />
                  </svg>{' '}
                  {oldSheet.name}
                </li>
              </ul>
              <div className="fly-row">
                <Button variant="outline-primary" aria-pressed={playing.on} onClick={playing.toggle}>
                  {playing.on ? 'Hold' : 'Fly both'}
                </Button>
                <input
                  type="range"
                  className="fly-slider"
                  aria-label="Seconds from lift-off"
                  min={0}
                  max={total}
                  step={0.5}
                  value={atS}
                  aria-valuetext={`${fixed(atS)} s`}
                  onChange={(e) => {
                    playing.stop();
                    set({ at: Number(e.target.value) });
                  }}
                />
                <output className="mono">{fixed(atS)} s</output>
              </div>
            </>
          )}
        </Panel>
        <div className="grid" style={{ alignContent: 'start' }}>
          <Panel title="Pace">
            <PaceWords pace={pace} old={old} names={[sheet.name, oldSheet.name]} word={props.word} />
          </Panel>
          <Panel title="Engine failure now: where?">
            <Surprise
              reach={reach.value}
              old={reach.old}
              failed={reach.failed}
              surprise={surprise}
              ask={ask}
              answer={(answer) => setSurprise(surprise && { ...surprise, answer })}
              ends={ends.map((e) => e.ident)}
              sheet={sheet}
            />
          </Panel>
        </div>
      </div>
      {pace.problem ? null : (
        <Panel title="Tasks against the clock">
          <TaskTimeline
            rows={[
              { name: sheet.name, pace, strong: true },
              { name: oldSheet.name, pace: old, strong: false },
            ]}
            atS={atS}
          />
          <p className="soft small mb-0">
            Each mark is a task, taller where several things change at once; a triangle under it: less than {TASK_GAP_S}{' '}
            s after the one before. The shaded leg is the busiest.
          </p>
        </Panel>
      )}
      <Panel title="Conditions">
        <div className="brief-form">
          <Field label="Runway" id="c-runway">
            <select
              value={runway.ident}
              onChange={(e) => set({ runway: e.target.value, side: sideOf(usable, e.target.value) })}
            >
              {usable.flatMap((s) =>
                s.ends.map((x) => (
                  <option key={x.ident} value={x.ident}>
                    {x.ident} {s.surface} {s.lengthM} m
                  </option>
                )),
              )}
            </select>
          </Field>
          <Field label="Turns" id="c-side">
            <select value={state.side} onChange={(e) => set({ side: e.target.value as CircuitState['side'] })}>
              <option value="left">left</option>
              <option value="right">right</option>
            </select>
          </Field>
        </div>
        <div className="ranges">
          <Range
            label="Wind from, true"
            id="wdir"
            value={state.wdir}
            min={10}
            max={360}
            step={10}
            unit="°"
            onChange={(wdir) => set({ wdir })}
          />
          <Range label="Wind" id="wkt" value={state.wkt} min={0} max={35} unit="kt" onChange={(wkt) => set({ wkt })} />
          <Range
            label="Outside air"
            id="oat"
            value={state.oat}
            min={-20}
            max={45}
            unit="°C"
            onChange={(oat) => set({ oat })}
          />
          <Range
            label="Circuit height, at most"
            id="height"
            value={state.height}
            min={500}
            max={1500}
            step={50}
            unit="ft"
            onChange={(height) => set({ height })}
          />
          <Range
            label="Crosswind turn at"
            id="turn"
            value={state.turn}
            min={300}
            max={1000}
            step={50}
            unit="ft"
            onChange={(turn) => set({ turn })}
          />
          <Range
            label="Downwind to runway"
            id="spacing"
            value={state.spacing ?? sheetSpacing(sheet, state.base)}
            min={500}
            max={3000}
            step={10}
            unit="m"
            onChange={(spacing) => set({ spacing })}
          />
          <Range
            label="Base turn, past abeam"
            id="base"
            value={state.base}
            min={20}
            max={60}
            unit="°"
            onChange={(base) => set({ base })}
          />
          <Range
            label="Bank in turns"
            id="bank"
            value={state.bank}
            min={10}
            max={45}
            unit="°"
            onChange={(bank) => set({ bank })}
          />
          <Range
            label="Bank gliding"
            id="glide"
            value={state.glide}
            min={20}
            max={60}
            unit="°"
            onChange={(glide) => set({ glide })}
          />
        </div>
      </Panel>
      <Panel title="Leg by leg">
        <LegTable pace={pace} old={old} names={[sheet.name, oldSheet.name]} />
      </Panel>
      <Panel title={`${sheet.name}, task by task`}>
        <ol className="tasks mb-0">
          {pace.tasks.map((t, i) => (
            <li key={`${t.name}${t.tS}`}>
              <span className="mono">{fixed(t.tS)} s</span> {t.name}{' '}
              <span className="soft small">
                {t.leg}
                {i > 0 ? `, ${fixed(t.tS - (pace.tasks[i - 1]?.tS ?? t.tS))} s after the last` : ''}
              </span>
            </li>
          ))}
        </ol>
      </Panel>
      <Panel title="Assumptions">
        <p className="small mb-1">
          Wind {windText}, {props.windSource}; air {fixed(state.oat)} °C at standard pressure, density{' '}
          {fixed(sigma * 100)} % of standard. Speeds and gates of the sheet at its reference mass; climb from power less
          drag of the glide polar; corners are sharp. Reach: {fixed(state.react)} s of reaction, best glide of the polar
          with the propeller as the sheet has it, bank {fixed(state.glide)}°, 50 ft wanted over the threshold, no turn
          back below {props.turnBack.heightFt} ft ({props.turnBack.source}).
        </p>
        <Outranked extra="Gliding range is a model for discussion, never a permission to turn back." />
      </Panel>
    </div>
  );
}

/** The drawing has its origin at the threshold in use. */
/** Which way the circuit of a runway end turns. */
const sideOf = (strips: readonly LabStrip[], ident: string): CircuitState['side'] =>
  strips.flatMap((s) => s.ends).find((e) => e.ident === ident)?.circuit ?? 'left';

function shift(runway: PaceRunway, strips: readonly LabStrip[]): { east: number; north: number } {
  const own = strips.find((s) => s.ends.some((e) => e.ident === runway.ident));
  const r = (runway.trueBearingDeg * Math.PI) / 180;
  return {
    east: -(own?.eastM ?? 0) + (runway.lengthM / 2) * Math.sin(r),
    north: -(own?.northM ?? 0) + (runway.lengthM / 2) * Math.cos(r),
  };
}

function PaceWords({ pace, old, names, word }: { pace: Pace; old: Pace; names: [string, string]; word: string }) {
  if (pace.totalTimeS === null || old.totalTimeS === null) return <p className="mb-0">{pace.problem ?? old.problem}</p>;
  const share = (1 - pace.totalTimeS / old.totalTimeS) * 100;
  const busiest = pace.legs.find((l) => l.leg === pace.busiestLeg);
  return (
    <>
      <p className="mb-1">
        <span className="num" style={{ fontSize: 30 }}>
          {fixed(pace.totalTimeS)} s
        </span>{' '}
        for one {word}, {fixed(old.totalTimeS)} s in the {names[1]}:{' '}
        {Math.abs(share) < 3 ? 'the same pace' : `${fixed(Math.abs(share))} % ${share > 0 ? 'less' : 'more'} time`}.
      </p>
      <p className="mb-1" data-testid="shortest-gap">
        Shortest gap <strong>{withUnit(pace.shortestGapS, 's', 1)}</strong>
        {old.shortestGapS === null ? '' : `, ${withUnit(old.shortestGapS, 's', 1)} before`}.{' '}
        {pace.tooClose.length === 0 ? (
          <Verdict verdict="within">no two tasks nearer than {TASK_GAP_S} s</Verdict>
        ) : (
          <Verdict verdict="edge">
            {pace.tooClose
              .map((g) => `${g.first}, then ${g.second}`)
              .slice(0, 2)
              .join('; ')}
          </Verdict>
        )}
      </p>
      {pace.tooTight ? (
        <p className="mb-1">
          <Verdict verdict="outside">
            The turns {pace.tooTight.turns} do not fit: two radii are {withUnit(Math.ceil(pace.tooTight.radiiM), 'm')},
            the spacing {withUnit(Math.floor(pace.spacingM), 'm')}.
          </Verdict>
        </p>
      ) : null}
      <p className="mb-0" data-testid="busiest-leg">
        Busiest: <strong>{pace.busiestLeg}</strong>, {fixed(busiest?.perMinute ?? 0, 1)} things a minute
        {`; ${fixed(old.legs.find((l) => l.leg === pace.busiestLeg)?.perMinute ?? 0, 1)} before`}.
      </p>
    </>
  );
}

function LegTable({ pace, old, names }: { pace: Pace; old: Pace; names: [string, string] }) {
  if (pace.problem ?? old.problem) return <p className="mb-0">{pace.problem ?? old.problem}</p>;
  const drift = (deg: number | null) =>
    deg === null ? '' : `${fixed(Math.abs(deg))}°${Math.abs(deg) < 0.5 ? '' : deg < 0 ? ' left' : ' right'}`;
  return (
    <>
      <div className="scroll-x">
        <table className="plain" aria-label="Leg by leg">
          <thead>
            <tr>
              <th scope="col" rowSpan={2}>
                Leg
              </th>
              {names.map((n) => (
                <th key={n} colSpan={6} scope="colgroup">
                  {n}
                </th>
              ))}
            </tr>
            <tr>
              {names.map((n) =>
                ['Heading', 'Drift', 'Over ground', 'Time', 'Turn radius', 'Things a minute'].map((h) => (
                  <th key={`${n}${h}`} className="r" scope="col">
                    {h}
                  </th>
                )),
              )}
            </tr>
          </thead>
          <tbody>
            {pace.legs.map((l, i) => (
              <tr key={l.leg}>
                <td>{l.leg}</td>
                {[l, old.legs[i]].map((x, k) =>
                  x
                    ? [
                        <td key={`${k}h`} className="r mono">
                          {x.headingDeg === null ? '' : `${direction(x.headingDeg)}°`}
                        </td>,
                        <td key={`${k}d`} className="r mono">
                          {drift(x.driftDeg)}
                        </td>,
                        <td key={`${k}g`} className="r mono">
                          {withUnit(x.groundSpeedKt, 'kt')}
                        </td>,
                        <td key={`${k}t`} className="r mono">
                          {withUnit(x.timeS, 's')}
                        </td>,
                        <td key={`${k}r`} className="r mono">
                          {withUnit(x.turnRadiusM, 'm')}
                        </td>,
                        <td key={`${k}m`} className="r mono">
                          {fixed(x.perMinute ?? 0, 1)}
                        </td>,
                      ]
                    : null,
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="soft small mb-0">
        Headings true.{' '}
        {[pace, old]
          .map(
            (p, i) =>
              `${names[i] ?? ''}: spacing ${fixed(p.spacingM)} m, lift-off ${fixed(p.liftOffM)} m after the threshold, climb ${fixed(p.climbDeg ?? 0, 1)}°`,
          )
          .join('; ')}
        .
      </p>
    </>
  );
}

/** What of it there is to hold. */
const heldThere = (sheet: { flapSteps: readonly number[]; gear: { retractable: boolean } }): string => {
  const held = [...(sheet.flapSteps.length > 1 ? ['flap'] : []), ...(sheet.gear.retractable ? ['gear'] : [])];
  return held.length > 0 ? `, with ${list(held)} as held there` : '';
};
const heldWords = (h: ReachSample['held']): string =>
  `Held: ${h.flapDeg > 0 ? `flap ${h.flapDeg}°` : 'clean'}${h.gear === 'fixed' ? '' : `, gear ${h.gear}`}.`;
const marginWords = (ft: number | null): string =>
  ft === null ? 'margin not known' : ft < 0 ? `${upTo(-ft)} ft short` : `${downTo(ft)} ft in hand`;
/** What is known of the propeller in the glide. */
const PROPELLER: Record<ReturnType<typeof propellerDrag>['said'], string> = {
  'in-the-glide': 'The handbook’s glide has the propeller windmilling.',
  added: 'The handbook’s glide has it stopped: the windmilling propeller is added.',
  'added-not-said': 'The sheet does not say what the propeller does in its glide: a windmilling one is added.',
  'not-on-the-sheet': 'The drag of a windmilling propeller is not on the sheet and not in this.',
};

/** Landing distance over 50 ft by the handbook's table and the school's factors, at the reference mass; dry. */
function landingToday(
  sheet: PaceSheet,
  factors: House['runway'] | null,
  strip: LabStrip,
  end: LabStrip['ends'][number],
  state: CircuitState,
): number | null {
  const here = sheetOn(sheet, surfaceOfStrip(strip.surface));
  if (!factors || !here) return null;
  const headwindKt = components(state.wdir, state.wkt, null, end.trueBearingDeg).headwindKt;
  return runwayToday(
    'landing',
    here,
    { runway: factors },
    {
      massKg: here.masses.refMassKg,
      air: airToday(strip.elevationFt, { qnhHpa: 1013.25, oatC: state.oat }),
      oatC: state.oat,
      runway: {
        ...strip,
        slopePct: strip.slopes[strip.ends.indexOf(end)] ?? 0,
        headwindKt,
        tailwindKt: Math.max(0, -headwindKt),
        gustTailwindKt: null,
      },
      wet: false,
      speedShare: 1,
    },
  ).need.over50M;
}

/** Where is nothing reached, in words; and the question asked at random. */
function Surprise({
  reach,
  old,
  failed,
  surprise,
  ask,
  answer,
  ends,
  sheet,
}: {
  reach: readonly ReachSample[] | null;
  old: boolean;
  failed: boolean;
  surprise: { at: ReachSample; answer: string | null } | null;
  ask: () => void;
  answer: (a: string) => void;
  ends: string[];
  sheet: PaceSheet;
}) {
  if (failed) return <p className="mb-0">The reach could not be computed. Reload the page.</p>;
  if (!reach)
    return (
      <p className="soft mb-0" role="status">
        Computing the reach.
      </p>
    );
  const nothing = [...new Set(reach.filter((r) => r.verdict === 'no').map((r) => r.leg))];
  const share = reach.filter((r) => r.verdict === 'reaches').length / Math.max(1, reach.length);
  const oneEngine = reach.reduce<number | null>(
    (least, r) => (r.oneEngineFpm === null ? least : Math.min(least ?? r.oneEngineFpm, r.oneEngineFpm)),
    null,
  );
  const found = surprise?.at;
  const right = found ? (found.ahead ? 'ahead' : found.verdict === 'no' ? 'field' : (found.bestId ?? 'field')) : null;
  return (
    <div aria-busy={old}>
      {!surprise || surprise.answer !== null ? (
        <p className="mb-2">
          {sheet.twin ? 'Both engines stopped: a' : 'A'} runway is reached with 200 ft in hand for {downTo(share * 100)}{' '}
          % of the circuit’s time{heldThere(sheet)}. No runway in range on parts of: {nothing.join(', ') || 'no leg'}.{' '}
          {sheet.twin && oneEngine !== null
            ? `One engine stopped: at Vyse exact, clean and feathered it ${oneEngine >= 0 ? `climbs ${downTo(oneEngine)}` : `descends ${upTo(-oneEngine)}`} ft/min at circuit height; with gear or flap it descends.`
            : ''}
        </p>
      ) : null}
      {surprise && found ? (
        <div role="group" aria-label="Engine failure now: where?">
          <p className="mb-1">
            <strong>Engine failure now</strong>: {found.leg}, {fixed(found.heightFt)} ft, {fixed(found.tS)} s after
            lift-off. Where to?
          </p>
          <div className="d-flex flex-wrap gap-1 mb-2">
            {[
              ...ends.map((e) => [e, e] as const),
              ['ahead', 'straight ahead, on the runway'] as const,
              ['field', 'a field, no runway'] as const,
            ].map(([key, label]) => (
              <Button
                key={key}
                variant={surprise.answer === key ? 'primary' : 'outline-primary'}
                size="sm"
                disabled={surprise.answer !== null}
                onClick={() => answer(key)}
              >
                {label}
              </Button>
            ))}
          </div>
          <div role="status">
            {surprise.answer === null ? null : (
              <>
                <p className="mb-1">
                  {surprise.answer === right ? (
                    <Verdict verdict="within">As the model.</Verdict>
                  ) : (
                    <Verdict verdict="outside">
                      Model answer:{' '}
                      {right === 'field'
                        ? 'no runway is reached, a field ahead'
                        : right === 'ahead'
                          ? 'straight ahead, on what is left of the runway'
                          : `${right ?? ''}, ${found.verdict === 'doubtful' ? 'and even that is doubtful' : 'with 200 ft in hand'}`}
                      .
                    </Verdict>
                  )}
                </p>
                <ul className="small mb-2 ps-3">
                  {found.ends.map((e) => (
                    <li key={e.id}>
                      <span className="mono">{e.id}</span>:{' '}
                      {e.reason === 'turn-back-below-house-height'
                        ? 'a turn back below the school height'
                        : e.reason === 'stall-margin'
                          ? 'the turn breaks the margin to the stall'
                          : e.reason === 'no-path'
                            ? 'no way there'
                            : e.marginFt === null
                              ? 'not reached'
                              : marginWords(e.marginFt)}
                    </li>
                  ))}
                </ul>
                <p className="small mb-2">
                  {heldWords(found.held)}
                  {found.retracted
                    ? ` Retracted at once: ${found.retracted.bestId === null ? 'still no runway' : `${found.retracted.bestId}, ${marginWords(found.retracted.ends.find((e) => e.id === found.retracted?.bestId)?.marginFt ?? null)}`}.`
                    : ''}
                  {found.aheadMarginFt === null
                    ? ''
                    : ` Ahead: ${found.aheadMarginFt >= 0 ? `${downTo(found.aheadMarginFt)} ft to spare` : `${upTo(-found.aheadMarginFt)} ft too high`} for what is left of the runway.`}
                </p>
              </>
            )}
          </div>
        </div>
      ) : null}
      <Button variant="primary" size="sm" onClick={ask} disabled={old}>
        {surprise ? 'Another surprise' : 'Surprise'}
      </Button>
      <p className="soft small mb-0 mt-2">
        {sheet.name}, {plural(reach.length, 'place')} along the circuit. {PROPELLER[propellerDrag(sheet.drag).said]} A
        model for discussion, never a permission.
      </p>
    </div>
  );
}

function usePlayClock(
  at: number,
  total: number,
  set: (at: number) => void,
): { on: boolean; toggle: () => void; stop: () => void } {
  const [on, setOn] = useState(false);
  const now = useRef(at);
  const write = useRef(set);
  useEffect(() => {
    now.current = at;
    write.current = set;
  });
  useEffect(() => {
    if (!on) return;
    let frame = 0;
    let before = performance.now();
    const step = (t: number) => {
      // Eight times real time.
      const next = Math.min(total, now.current + ((t - before) / 1000) * 8);
      before = t;
      write.current(next);
      if (next >= total) setOn(false);
      else frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [on, total]);
  return {
    on,
    stop: () => setOn(false),
    toggle: () => {
      if (on) return setOn(false);
      if (window.matchMedia('(prefers-reduced-motion: reduce)').matches)
        return set(at >= total ? 0 : Math.min(total, at + 10));
      if (at >= total) set(0);
      setOn(true);
    },
  };
}
