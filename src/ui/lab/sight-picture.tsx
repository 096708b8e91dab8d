'use client';
import FormSelect from 'react-bootstrap/FormSelect';
import Button from 'react-bootstrap/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import { fixed, withUnit } from '@/core/format';
import {
  type PathInput,
  type SightAnswers,
  type SightSheet,
  type View,
  type EdgesInput,
  AIR_VIEW_DEG,
  GROUND_VIEW_DEG,
  SIGHT_MARGIN_DEG,
  TOUCHDOWN_AT,
  flyAt,
  groundEye,
  missingMeasures,
  pathSlope,
  scene,
  sightAnswers,
  viewOf,
  withMargin,
} from '@/core/sightpicture';
import { say } from '@/domain/words';
import type { ActionResult } from '../shared/forms';
import { Outranked, Panel } from '../shared/parts';
import { Verdict } from '../shared/verdict';
import { labWorker } from '@/workers';
import { EyeForm } from './eye-form';
import { LabBar, type LabContext } from './lab-bar';
import { MeasureForm, type MeasureFacts } from './measure-form';
import { useQueryState } from './query-state';
import { Range } from './range';
import { SightDrawing } from './sight-drawing';
import type { SightState } from './starts';
import { useWorker } from './use-worker';

interface Props {
  context: LabContext;
  sheet: SightSheet;
  oldSheet: SightSheet;
  /** Eye of the pilot of the checkout in the new type and in the old. */
  eyeHeightM: { pilot: number | null; instructor: number | null };
  oldEyeHeightM: number | null;
  eyeWords: string | null;
  sigma: number;
  /** The runway drawn: from the checkout's day, or the first this type may use. */
  runway: { ident: string; lengthM: number; landmark: { name: string; alongM: number } | null };
  initial: SightState;
  start: SightState;
  measure: MeasureFacts;
  eyeAction: ((form: unknown) => Promise<ActionResult>) | null;
}
const words = (state: SightState, view: View): string =>
  state.show === 'fly'
    ? 'on the approach'
    : `${say(state.show)} attitude${view.attitudes.some((a) => a.name === state.show) ? '' : ', not measured'}`;

/** What the pilot sees, side by side with what they know; a slider flies the whole approach. */
export function SightPicture(props: Props) {
  const { context, sheet, oldSheet, sigma, start } = props;
  const [state, set] = useQueryState(start, props.initial);
  const [localSheet, setLocalSheet] = useState<SightSheet | null>(null);
  const used = localSheet ?? sheet;
  const measuredEye = props.eyeHeightM[state.seat];
  const view = useMemo(
    () => viewOf(used, state.eye ?? measuredEye, sigma, state.seat),
    [used, state.eye, measuredEye, sigma, state.seat],
  );
  const oldView = useMemo(() => viewOf(oldSheet, props.oldEyeHeightM, sigma), [oldSheet, props.oldEyeHeightM, sigma]);
  const { offset, side, down, xw, slope, aim } = state;
  const input = useMemo(
    () => (view ? pathOf(view, { offset, side, down, xw, slope, aim }) : null),
    [view, offset, side, down, xw, slope, aim],
  );
  const { pitch, show } = state;
  const attitude = useMemo(
    () =>
      view && pitch !== null
        ? { pitchDeg: pitch, bankDeg: 0 }
        : view && show !== 'fly'
          ? (view.attitudes.find((a) => a.name === show) ?? null)
          : null,
    [view, pitch, show],
  );
  const answers = useMemo(
    () => (view && input ? sightAnswers(view.profile, withMargin(view.profile), input, attitude) : null),
    [view, input, attitude],
  );
  const playing = usePlay(state.t, (t) => set({ t }));
  return (
    <div className="grid">
      <LabBar context={context} withOld />
      <div className="grid g-1-1 pictures">
        <PictureOf
          title={`${oldSheet.name}: what is known`}
          sheet={oldSheet}
          view={oldView}
          state={state}
          runway={props.runway}
          isOld
        />
        <PictureOf
          title={`${used.name}: what will be seen`}
          sheet={used}
          view={view}
          state={state}
          runway={props.runway}
          isOld={false}
        />
      </div>
      {view === null ? (
        <MeasureForm key={used.code} sheet={used} facts={props.measure} drawWith={setLocalSheet} />
      ) : (
        <Panel title="Fly it">
          <div className="fly-row">
            <Button
              variant="outline-primary"
              aria-pressed={playing.on}
              onClick={playing.toggle}
              disabled={state.show !== 'fly'}
            >
              {playing.on ? 'Hold' : 'Fly the approach'}
            </Button>
            <input
              type="range"
              className="fly-slider"
              aria-label="Along the approach"
              min={0}
              max={1}
              step={0.002}
              value={state.t}
              disabled={state.show !== 'fly'}
              aria-valuetext={view && input ? flightWords(view, input, state) : ''}
              onChange={(e) => {
                playing.stop();
                set({ t: Number(e.target.value) });
              }}
            />
            <output className="mono small">
              {!view || !input
                ? ''
                : state.show === 'fly'
                  ? flightWords(view, input, state)
                  : horizonWords(view, attitude?.pitchDeg ?? 0)}
            </output>
          </div>
          <div role="radiogroup" aria-label="Gate or attitude" className="choice-row">
            {[
              ['fly', 'on the approach'] as const,
              ...(view?.attitudes ?? []).map((a) => [a.name, `${say(a.name)}`] as const),
            ].map(([key, name]) => (
              <label key={key} className={state.show === key ? 'on' : ''}>
                <input
                  type="radio"
                  name="show"
                  value={key}
                  checked={state.show === key}
                  onChange={() => {
                    playing.stop();
                    set({ show: key });
                  }}
                />{' '}
                {name}
              </label>
            ))}
            {view && input
              ? view.gates
                  .filter((g) => g.finalGate)
                  .map((g) => (
                    <Button
                      key={g.name}
                      variant="outline-primary"
                      size="sm"
                      onClick={() => {
                        playing.stop();
                        set({ show: 'fly', t: shareAt(input, g.distanceM + input.aimPointM) });
                      }}
                    >
                      {g.name}
                    </Button>
                  ))
              : null}
            <Button
              variant="outline-primary"
              size="sm"
              onClick={() => {
                playing.stop();
                set({ show: 'fly', t: TOUCHDOWN_AT });
              }}
            >
              Touchdown
            </Button>
          </div>
          <div className="ranges">
            <Range
              label="Aim point beside the nose"
              id="offset"
              value={state.offset}
              min={0}
              max={45}
              step={0.1}
              unit="°"
              onChange={(offset) => set({ offset })}
            />
            <Range
              label="Held down to"
              id="down"
              value={state.down}
              min={50}
              max={500}
              step={10}
              unit="ft"
              onChange={(down) => set({ down })}
            />
            <Range
              label="Runway width"
              id="width"
              value={state.width}
              min={8}
              max={60}
              step={1}
              unit="m"
              onChange={(width) => set({ width })}
            />
            <Range
              label="Runway slope, up positive"
              id="rslope"
              value={state.rslope}
              min={-4}
              max={4}
              step={0.1}
              unit="%"
              onChange={(rslope) => set({ rslope })}
            />
            <Range
              label="Crosswind, right positive"
              id="xw"
              value={state.xw}
              min={-25}
              max={25}
              step={1}
              unit="kt"
              onChange={(xw) => set({ xw })}
            />
            <Range
              label="Off the centreline, right positive"
              id="off"
              value={state.off}
              min={-8}
              max={8}
              step={0.5}
              unit="m"
              onChange={(off) => set({ off })}
            />
            <Range
              label="Eye above ground"
              id="eye"
              value={state.eye ?? view?.eyeHeightM ?? 1.5}
              min={1}
              max={3.5}
              step={0.01}
              unit="m"
              onChange={(eye) => set({ eye })}
            />
            <Range
              label="Approach path"
              id="slope"
              value={state.slope ?? (view ? pathSlope(view.gates, state.aim ?? view.aimPointM) : 3)}
              min={2}
              max={8}
              step={0.1}
              unit="°"
              onChange={(slope) => set({ slope })}
            />
            <div className="range">
              <label htmlFor="side">Runway seen</label>
              <FormSelect
                id="side"
                size="sm"
                value={state.side}
                onChange={(e) => set({ side: e.target.value as SightState['side'] })}
              >
                <option value="left">left of the nose</option>
                <option value="right">right of the nose</option>
              </FormSelect>
              <span />
            </div>
            <div className="range">
              <label htmlFor="seat">Seat</label>
              <FormSelect
                id="seat"
                size="sm"
                value={state.seat}
                onChange={(e) => set({ seat: e.target.value as SightState['seat'] })}
              >
                <option value="pilot">the pilot’s</option>
                <option value="instructor">
                  the instructor’s{used.seats.arrangement === 'tandem' ? ', eye height only' : ''}
                </option>
              </FormSelect>
              <span />
            </div>
          </div>
          {[state.slope, state.pitch, state.aim, state.eye].some((v) => v !== null) ? (
            <p className="mb-0 mt-2 small">
              Not as the sheet:{' '}
              {[
                state.slope === null ? '' : `path ${fixed(state.slope, 1)}°`,
                state.pitch === null ? '' : `pitch held at ${fixed(state.pitch, 1)}°`,
                state.aim === null ? '' : `aim ${fixed(state.aim)} m past the threshold`,
                state.eye === null ? '' : `eye ${fixed(state.eye, 2)} m`,
              ]
                .filter(Boolean)
                .join(', ')}
              .{' '}
              <Button
                variant="link"
                size="sm"
                className="p-0 align-baseline"
                onClick={() => set({ slope: null, pitch: null, aim: null, eye: null })}
              >
                Back to the sheet
              </Button>
            </p>
          ) : null}
        </Panel>
      )}
      {view && input && answers ? (
        <>
          <Answers view={view} answers={answers} state={state} take={(offset) => set({ offset })} />
          <Wedges view={view} state={state} />
        </>
      ) : null}
      {props.eyeAction && context.pilotName && context.checkoutId ? (
        <EyeForm
          sheet={used}
          measure={props.measure}
          pilotName={context.pilotName}
          eyeHeightM={props.eyeHeightM.pilot}
          said={props.eyeWords}
          action={props.eyeAction}
        />
      ) : null}
      <Panel title="Assumptions">
        <p className="small mb-1">
          {view
            ? `${used.name}: nose ${view.source}; eye ${fixed(view.eyeHeightM, 2)} m above ground on three wheels${props.eyeWords && state.eye === null ? `, ${props.eyeWords}` : ''}. `
            : ''}
          Runway {props.runway.ident}, {props.runway.lengthM} m
          {props.runway.landmark ? `, ${props.runway.landmark.name} at ${props.runway.landmark.alongM} m` : ''}. From
          the first gate on final straight to the aim point; pitch between gates in proportion. {SIGHT_MARGIN_DEG}° are
          kept in every answer: 5 cm of cushion are about 1.5°. The view is {AIR_VIEW_DEG * 2}° wide in the air and
          opens to {GROUND_VIEW_DEG * 2}° on the ground; full rotation, no small-angle shortcut. No ground effect, no
          propeller disc.
        </p>
        <Outranked extra="A model for discussion, not a way to find the runway." />
      </Panel>
    </div>
  );
}

type PathState = Pick<SightState, 'offset' | 'side' | 'down' | 'xw' | 'slope' | 'aim'>;
const pathOf = (view: View, s: PathState): PathInput => ({
  gates: view.gates,
  aimPointM: s.aim ?? view.aimPointM,
  slopeDeg: s.slope,
  offsetDeg: s.offset,
  side: s.side,
  downToFt: s.down,
  crosswindKt: s.xw,
});
const shareAt = (input: PathInput, toAimM: number): number => {
  const first = input.gates.find((g) => g.finalGate);
  return TOUCHDOWN_AT * (1 - toAimM / ((first?.distanceM ?? 1000) + input.aimPointM));
};

function flightWords(view: View, input: PathInput, s: SightState): string {
  const f = flyAt(view, input, s.t, s.off);
  return f.phase === 'touchdown'
    ? `on the ground, ${say(view.landingAttitude)} attitude, nose up ${fixed(f.pitchDeg, 0)}°`
    : `${fixed(f.heightFt)} ft, ${fixed(f.toAimM)} m to the aim point, pitch ${fixed(f.pitchDeg, 1)}°${Math.abs(f.eye.bankDeg) > 0.5 ? `, bank ${fixed(Math.abs(f.eye.bankDeg))}° ${f.eye.bankDeg < 0 ? 'left' : 'right'}` : ''}`;
}

function PictureOf({
  title,
  sheet,
  view,
  state,
  runway,
  isOld,
}: {
  title: string;
  sheet: SightSheet;
  view: View | null;
  state: SightState;
  runway: Props['runway'];
  isOld: boolean;
}) {
  if (!view) {
    const missing = missingMeasures(sheet);
    return (
      <Panel title={title}>
        <p className="mb-0">
          Not measured yet: {missing.map((m) => m.what).join(', ')}.{' '}
          {isOld ? 'Choose another type, or measure this one on its own page.' : 'See below how to measure it.'}
        </p>
      </Panel>
    );
  }
  // The type that is known is flown straight in: that is the habit.
  const own = isOld ? { ...state, offset: 0, slope: null, aim: null, pitch: null } : state;
  const input = pathOf(view, own);
  const ground = {
    lengthM: runway.lengthM,
    widthM: state.width,
    aimPointM: input.aimPointM,
    slopePct: state.rslope,
    landmark: runway.landmark,
  };
  const held = view.attitudes.find((a) => a.name === state.show);
  const flown = flyAt(view, input, state.t, state.off);
  const eye =
    state.show === 'fly'
      ? { ...flown.eye, ...(own.pitch === null ? {} : { pitchDeg: own.pitch }) }
      : held && (held.name === 'three-point' || held.name === 'wheel')
        ? groundEye({
            eyeHeightM: view.eyeHeightM,
            pitchDeg: held.pitchDeg,
            crabDeg: 0,
            offsetM: state.off,
            eyeLateralM: view.eyeLateralM,
            alongM: input.aimPointM,
          })
        : {
            x: -1400,
            y: 0,
            zM: 150,
            pitchDeg: held?.pitchDeg ?? 0,
            bankDeg: held?.bankDeg ?? 0,
            headingDeg: held?.yawDeg ?? 0,
          };
  const onGround = state.show !== 'fly' && (held?.name === 'three-point' || held?.name === 'wheel');
  const halfViewDeg = state.show === 'fly' ? flown.halfViewDeg : onGround ? GROUND_VIEW_DEG : AIR_VIEW_DEG + 8;
  const drawn = scene({
    halfViewDeg,
    eye,
    ground,
    profile: view.profile,
    parts: view.parts,
    references: view.references.filter((r) => r.attitude === state.show),
  });
  const missingAttitude = state.show !== 'fly' && !held;
  return (
    <section className="panel picture" aria-label={title}>
      <h2>{title}</h2>
      <SightDrawing
        scene={drawn}
        label={`${title}, ${words(state, view)}: ${state.show === 'fly' ? flightWords(view, input, own) : `pitch ${fixed(held?.pitchDeg ?? 0, 1)}°`}`}
      />
      <p className="mb-0 mt-2 small">
        {missingAttitude
          ? `${say(state.show)} attitude is not on this sheet.`
          : state.show === 'fly'
            ? flightWords(view, input, own)
            : horizonWords(view, held?.pitchDeg ?? 0)}
      </p>
    </section>
  );
}

/** Where the top of the nose lies against the horizon. */
function horizonWords(view: View, pitchDeg: number): string {
  const ahead = view.profile.reduce(
    (a, p) => (Math.abs(p.azimuthDeg) < Math.abs(a.azimuthDeg) ? p : a),
    view.profile[0] ?? { azimuthDeg: 0, depressionDeg: 0 },
  );
  const below = ahead.depressionDeg - pitchDeg;
  return `Pitch ${fixed(pitchDeg, 1)}°: the nose ends ${fixed(Math.abs(below), 1)}° ${below >= 0 ? 'below' : 'above'} the horizon.`;
}

/** Frames by the display's own clock; none when motion is not wanted. */
function usePlay(t: number, set: (t: number) => void): { on: boolean; toggle: () => void; stop: () => void } {
  const [on, setOn] = useState(false);
  const at = useRef(t);
  const write = useRef(set);
  useEffect(() => {
    at.current = t;
    write.current = set;
  });
  useEffect(() => {
    if (!on) return;
    let frame = 0;
    let before = performance.now();
    const step = (now: number) => {
      const next = Math.min(1, at.current + (now - before) / 14_000);
      before = now;
      write.current(next);
      if (next >= 1) setOn(false);
      else frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [on]);
  const still = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches;
  return {
    on,
    stop: () => setOn(false),
    toggle: () => {
      if (on) return setOn(false);
      // Without motion the button steps from picture to picture.
      if (still()) return set(t >= 1 ? 0 : Math.min(1, t + 0.1));
      if (t >= 1) set(0);
      setOn(true);
    },
  };
}

const lostWords = (lost: SightAnswers['lost'], what: string): string =>
  lost.neverSeen
    ? `${what}never visible`
    : lost.heightFt === null
      ? `${what}stays in sight`
      : `${what}disappears under the nose at ${Math.ceil(lost.heightFt)} ft`;

function Answers({
  view,
  answers,
  state,
  take,
}: {
  view: View;
  answers: SightAnswers;
  state: SightState;
  take: (offset: number) => void;
}) {
  const least = answers.leastOffsetDeg === null ? null : Math.ceil(answers.leastOffsetDeg * 10) / 10;
  return (
    <div className="grid g-2-1">
      <Panel title="Is the aim point seen?">
        <div className="scroll-x">
          <table className="plain" aria-label="The aim point at each gate">
            <thead>
              <tr>
                <th scope="col">At</th>
                <th scope="col" className="r">
                  Height
                </th>
                <th scope="col" className="r">
                  Pitch
                </th>
                <th scope="col" className="r">
                  Nose under horizon
                </th>
                <th scope="col" className="r">
                  Aim under horizon
                </th>
                <th scope="col" className="r">
                  Straight in
                </th>
                <th scope="col">{state.offset > 0 || state.xw !== 0 ? 'As flown' : 'Verdict'}</th>
              </tr>
            </thead>
            <tbody>
              {answers.gates.map((g) => (
                <tr key={g.name}>
                  <td>{g.name}</td>
                  <td className="r mono">{withUnit(g.heightFt, 'ft')}</td>
                  <td className="r mono">{fixed(g.pitchDeg, 1)}°</td>
                  <td className="r mono">{fixed(g.noseBelowHorizonDeg, 1)}°</td>
                  <td className="r mono">{fixed(g.depressionDeg, 1)}°</td>
                  <td className="r mono">
                    {g.straightInMarginDeg > 0 ? '+' : ''}
                    {fixed(g.straightInMarginDeg, 1)}°
                  </td>
                  <td>
                    {g.heightFt < state.down - 1 ? (
                      <span className="soft">below {state.down} ft the edges count</span>
                    ) : (
                      <Verdict verdict={g.marginDeg >= SIGHT_MARGIN_DEG ? 'within' : g.visible ? 'edge' : 'outside'}>
                        {g.marginDeg >= SIGHT_MARGIN_DEG
                          ? 'seen'
                          : g.visible
                            ? `barely, ${fixed(g.marginDeg, 1)}°`
                            : 'hidden'}
                      </Verdict>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </Panel>
      <Panel title="What follows">
        <p className="mb-2" data-testid="straight-in">
          <strong>Straight in</strong> {lostWords(answers.lost, '')};{' '}
          {lostWords(answers.lostWithMargin, `with ${SIGHT_MARGIN_DEG}° in hand, `)}.{' '}
          <span className="soft small">Threshold or aim point, whichever disappears first.</span>
        </p>
        <p className="mb-2" data-testid="least-offset">
          {least === null ? (
            'No angle beside the nose keeps the aim point in sight: another attitude or another way down.'
          ) : least === 0 ? (
            `Straight in keeps it in sight down to ${state.down} ft: no offset needed.`
          ) : (
            <>
              <strong>{fixed(least, 1)}°</strong> beside the nose keep{'s'} it in sight down to {state.down} ft,{' '}
              {SIGHT_MARGIN_DEG}° in hand; {answers.governingGate} asks for most.{' '}
              <Button variant="outline-primary" size="sm" onClick={() => take(least)}>
                Fly {fixed(least, 1)}°
              </Button>
            </>
          )}
        </p>
        <p className="mb-0" data-testid="on-path">
          {answers.keptOnPath ? (
            <Verdict verdict="within">On the path drawn it never disappears under the nose.</Verdict>
          ) : (
            <Verdict verdict="outside">
              On the path drawn less than {SIGHT_MARGIN_DEG}° are left from {fixed(answers.lostOnPathFt ?? 0)} ft: lost,
              change something at once or go around.
            </Verdict>
          )}
          {state.offset > 0 ? (
            <span className="soft small d-block">
              A curve of at most {fixed(answers.curveBankDeg)}° of bank at these speeds; then one shallow alignment
              turn. Crab {fixed(Math.abs(state.xw) > 0 ? crabOf(view, state) : 0, 1)}°.
            </span>
          ) : null}
        </p>
      </Panel>
    </div>
  );
}
const crabOf = (view: View, s: SightState): number =>
  Math.abs((Math.asin(Math.min(1, Math.abs(s.xw) / (view.gates[view.gates.length - 1]?.tasKt ?? 60))) * 180) / Math.PI);

/** What is left of the runway beside the nose in the landing attitude. */
function Wedges({ view, state }: { view: View; state: SightState }) {
  const widths = [...new Set([state.width, 12, 18, 25, 40])].sort((a, b) => a - b);
  const question = widths.map((w): EdgesInput => ({
    profile: withMargin(view.profile),
    pitchDeg: view.landingPitchDeg,
    bankDeg: 0,
    crabDeg: 0,
    eyeHeightM: view.eyeHeightM,
    eyeLateralM: view.eyeLateralM,
    offsetM: state.off,
    runwayWidthM: w,
    lookAheadM: 800,
    maxAzimuthDeg: 60,
  }));
  const answer = useWorker(JSON.stringify(question), () => labWorker().wedges(question));
  const edge = (m: number | null) => (m === null ? 'not seen' : withUnit(m, 'm', 0));
  return (
    <Panel
      title={`Beside the nose on the ground, ${say(view.landingAttitude)} attitude, ${fixed(state.off, 1)} m off the centreline`}
    >
      <div className="scroll-x">
        <table className="plain" aria-label="Wedges by runway width" aria-busy={answer.old}>
          <thead>
            <tr>
              <th scope="col">Runway</th>
              <th scope="col" className="r">
                Left wedge
              </th>
              <th scope="col" className="r">
                Right wedge
              </th>
              <th scope="col" className="r">
                Left edge from
              </th>
              <th scope="col" className="r">
                to
              </th>
              <th scope="col" className="r">
                Right edge from
              </th>
              <th scope="col" className="r">
                to
              </th>
              <th scope="col">Equal wedges mean</th>
            </tr>
          </thead>
          <tbody>
            {widths.map((w, i) => {
              const e = answer.value?.[i];
              if (!e)
                return (
                  <tr key={w}>
                    <td className="mono">{w} m</td>
                    <td colSpan={7} className="soft">
                      {answer.failed ? 'could not be computed: reload the page' : 'computing'}
                    </td>
                  </tr>
                );
              return (
                <tr key={w} className={w === state.width ? 'now' : undefined}>
                  <td className="mono">
                    {w} m{w === state.width ? ', chosen' : ''}
                  </td>
                  <td className="r mono">{fixed(e.left.wedgeDeg, 1)}°</td>
                  <td className="r mono">{fixed(e.right.wedgeDeg, 1)}°</td>
                  <td className="r mono">{edge(e.left.nearestM)}</td>
                  <td className="r mono">{edge(e.left.farthestM)}</td>
                  <td className="r mono">{edge(e.right.nearestM)}</td>
                  <td className="r mono">{edge(e.right.farthestM)}</td>
                  <td>
                    {e.equalWedgeOffsetM === null ? (
                      <span className="soft">they do not tell</span>
                    ) : Math.abs(e.equalWedgeOffsetM) < 0.25 ? (
                      'the middle'
                    ) : (
                      `${fixed(Math.abs(e.equalWedgeOffsetM), 1)} m ${e.equalWedgeOffsetM < 0 ? 'left' : 'right'} of the middle`
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="soft small mb-0">
        Wedge: degrees of azimuth, out to 60° to the side, in which that runway edge is seen; {SIGHT_MARGIN_DEG}° kept.
        A narrow runway shows a thinner wedge by the same method.
      </p>
    </Panel>
  );
}
