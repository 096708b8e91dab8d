'use client';
import { Plot } from '../shared/plot';
import { useMemo } from 'react';
import { type CornerFrame, type CornerInput, casterState, cornerPaths, cornerVerdict, groundTurn } from '@/core/ground';
import { fixed, withUnit } from '@/core/format';
import type { TypeSheet } from '@/domain/sheet';
import { Outranked, Panel } from '../shared/parts';
import { Source } from '../shared/source';
import { Verdict } from '../shared/verdict';
import { LabBar, type LabContext } from './lab-bar';
import { useQueryState } from './query-state';
import { Range } from './range';
import type { GroundState } from './starts';

export type GroundSheet = Pick<TypeSheet, 'name' | 'gear' | 'wing'>;
const TECHNIQUES = [
  ['centreline', 'Axle on the centreline'],
  ['hugInside', 'Inside wheel skims the corner'],
] as const;
const WARN_BEFORE_DEG = 3;

/** A right-angled corner with the path of every wheel, both techniques beside each other. */
export function Ground({
  context,
  sheet,
  initial,
  start,
  taxiwaySource,
}: {
  context: LabContext;
  sheet: GroundSheet;
  initial: GroundState;
  start: GroundState;
  taxiwaySource: string;
}) {
  const [state, set] = useQueryState(start, initial);
  const layout = sheet.gear.layout === 'tailwheel' ? 'tailwheel' : 'nosewheel';
  const track = sheet.gear.trackM.value;
  const wheelbase = sheet.gear.wheelbaseM.value;
  const steer = sheet.gear.steerDeg?.value ?? null;
  const least =
    steer === null ? null : groundTurn({ wheelbaseM: wheelbase, trackM: track, steerLimitDeg: steer, method: 'steer' });
  const pivot = groundTurn({ wheelbaseM: wheelbase, trackM: track, steerLimitDeg: 90, method: 'pivot' });
  const radius = Math.max(track / 2, state.radius ?? Math.max(state.width / 2, least?.axleRadiusM ?? state.width / 2));
  const corner = (technique: CornerInput['technique']): CornerInput => ({
    wheelbaseM: wheelbase,
    trackM: track,
    turnRadiusM: radius,
    taxiwayWidthM: state.width,
    technique,
    layout,
    spanM: sheet.wing.spanM.value,
  });
  const caster =
    steer === null
      ? null
      : casterState({
          wheelbaseM: wheelbase,
          turnRadiusM: radius,
          steerLimitDeg: steer,
          warnBeforeDeg: WARN_BEFORE_DEG,
        });
  const third = layout === 'tailwheel' ? 'tailwheel' : 'nosewheel';
  return (
    <div className="grid">
      <LabBar context={context} withOld={false} />
      <div className="grid g-1-1 pictures">
        {TECHNIQUES.map(([technique, name]) => {
          const c = corner(technique);
          const v = cornerVerdict(c, { lightsM: state.lights, lipCm: state.lip });
          return (
            <Panel key={technique} title={name}>
              <CornerDrawing corner={c} at={state.at} lightsM={state.lights} label={`${name}: ${v.words}`} />
              <p className="mb-0 mt-2" data-testid={`corner-${technique}`}>
                <Verdict verdict={v.state === 'on' ? 'within' : v.state === 'edge' ? 'edge' : 'outside'}>
                  {v.words[0]?.toUpperCase()}
                  {v.words.slice(1)}.
                </Verdict>
              </p>
            </Panel>
          );
        })}
      </div>
      <div className="fly-row panel">
        <label htmlFor="corner-at">Taxi round the corner</label>
        <input
          type="range"
          id="corner-at"
          className="fly-slider"
          min={0}
          max={1}
          step={0.005}
          value={state.at}
          aria-valuetext={`${fixed(state.at * 100)} % of the way`}
          onChange={(e) => set({ at: Number(e.target.value) })}
        />
        <output className="mono small">{fixed(state.at * 100)} %</output>
      </div>
      <div className="grid g-2-1">
        <Panel title="Taxiway and turn">
          <div className="ranges">
            <Range
              label="Turn radius of the axle"
              id="radius"
              value={radius}
              min={Math.ceil(track * 5) / 10}
              max={30}
              step={0.1}
              unit="m"
              onChange={(r) => set({ radius: r })}
            />
            <Range
              label="Taxiway width"
              id="twidth"
              value={state.width}
              min={4}
              max={25}
              step={0.5}
              unit="m"
              onChange={(width) => set({ width })}
            />
            <Range
              label="Lights beyond the edge"
              id="lights"
              value={state.lights}
              min={0}
              max={3}
              step={0.1}
              unit="m"
              onChange={(lights) => set({ lights })}
            />
            <Range
              label="Lip down from the edge"
              id="lip"
              value={state.lip}
              min={0}
              max={30}
              step={1}
              unit="cm"
              onChange={(lip) => set({ lip })}
            />
          </div>
          <p className="soft small mb-0 mt-2">Taxiway: {taxiwaySource}. Moving a slider tries another.</p>
        </Panel>
        <Panel title={`The ${third}`}>
          <p className="mb-1" data-testid="caster">
            {caster === null || steer === null ? (
              `No steering on the sheet: the ${third} casters${sheet.gear.freeCaster ? ' free' : ''}, direction by brake.`
            ) : caster.state === 'casters' ? (
              <Verdict verdict="outside">
                This turn wants {fixed(caster.neededDeg)}° of {fixed(steer)}°: it breaks out and casters free. Opposite
                to stop the turn, then neutral.
              </Verdict>
            ) : caster.state === 'warn' ? (
              <Verdict verdict="edge">
                This turn wants {fixed(caster.neededDeg)}° of {fixed(steer)}°: about to break out.
              </Verdict>
            ) : (
              <Verdict verdict="within">
                This turn wants {fixed(caster.neededDeg)}° of {fixed(steer)}°: it steers.
              </Verdict>
            )}
          </p>
          <table aria-label={`Figures of the ${third}`} className="plain">
            <tbody>
              <tr>
                <td>Track</td>
                <td className="r mono">
                  {withUnit(track, 'm', 2)}
                  <Source source={sheet.gear.trackM.source} reference={sheet.gear.trackM.ref} />
                </td>
              </tr>
              <tr>
                <td>Wheelbase</td>
                <td className="r mono">
                  {withUnit(wheelbase, 'm', 2)}
                  <Source source={sheet.gear.wheelbaseM.source} reference={sheet.gear.wheelbaseM.ref} />
                </td>
              </tr>
              <tr>
                <td>Steers to</td>
                <td className="r mono">
                  {sheet.gear.steerDeg ? (
                    <>
                      {fixed(sheet.gear.steerDeg.value)}°
                      <Source source={sheet.gear.steerDeg.source} reference={sheet.gear.steerDeg.ref} />
                    </>
                  ) : (
                    'not on the sheet'
                  )}
                </td>
              </tr>
              <tr>
                <td>Least radius, steering</td>
                <td className="r mono">{least ? withUnit(least.axleRadiusM, 'm', 1) : '–'}</td>
              </tr>
              <tr>
                <td>{third} path then</td>
                <td className="r mono">{least ? `${withUnit(least.thirdWheelRadiusM, 'm', 1)}` : '–'}</td>
              </tr>
              <tr>
                <td>Pivot on the inside wheel</td>
                <td className="r mono">{withUnit(pivot.axleRadiusM, 'm', 1)}</td>
              </tr>
              <tr>
                <td>{third} path then</td>
                <td className="r mono">{withUnit(pivot.thirdWheelRadiusM, 'm', 1)}</td>
              </tr>
            </tbody>
          </table>
          <p className="soft small mb-0 mt-2">
            {layout === 'tailwheel'
              ? 'Pivoting on a locked wheel tears the tyre and the surface: keep it rolling.'
              : 'The nosewheel leads: the habit that puts a tail over the lights.'}
          </p>
        </Panel>
      </div>
      <Panel title="Assumptions">
        <p className="small mb-1">
          The mains do not slip sideways; the fuselage lies along the axle’s path; a right-angled corner of equal
          taxiways. Height of the wing over lights and signs is not modelled.
        </p>
        <Outranked />
      </Panel>
    </div>
  );
}

function CornerDrawing({
  corner,
  at,
  lightsM,
  label,
}: {
  corner: CornerInput;
  at: number;
  lightsM: number;
  label: string;
}) {
  const frames = useMemo(
    () => cornerPaths(corner),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the fields, not the object that carries them
    [
      corner.technique,
      corner.turnRadiusM,
      corner.taxiwayWidthM,
      corner.wheelbaseM,
      corner.trackM,
      corner.layout,
      corner.spanM,
    ],
  );
  const S = 420;
  const half = corner.taxiwayWidthM / 2;
  const reach = Math.max(corner.turnRadiusM + 4, corner.wheelbaseM + 5, half + 9);
  const scale = S / (reach + half + 7);
  const X = (x: number) => (x + half + 6) * scale;
  const Y = (y: number) => S - (y + reach) * scale;
  const path = (pick: (f: CornerFrame) => { x: number; y: number }) =>
    frames.map((f, i) => `${i === 0 ? 'M' : 'L'}${X(pick(f).x).toFixed(1)} ${Y(pick(f).y).toFixed(1)}`).join('');
  const now = frames[Math.round(at * (frames.length - 1))];
  const edge = half + lightsM;
  const lights = [
    ...Array.from({ length: 12 }, (_, i) => ({ x: -edge, y: -reach + i * 4 })).filter((p) => p.y < edge),
    ...Array.from({ length: 12 }, (_, i) => ({ x: -edge + i * 4, y: edge })),
  ];
  const heading = now ? (now.headingDeg * Math.PI) / 180 : 0;
  const body = (forward: number, side: number) =>
    now
      ? {
          x: now.axle.x + forward * Math.sin(heading) + side * Math.cos(heading),
          y: now.axle.y + forward * Math.cos(heading) - side * Math.sin(heading),
        }
      : { x: 0, y: 0 };
  const nose = corner.layout === 'tailwheel' ? corner.wheelbaseM * 0.28 : corner.wheelbaseM * 1.25;
  const tail = corner.layout === 'tailwheel' ? -corner.wheelbaseM : -corner.wheelbaseM * 2.2;
  const poly = (points: { x: number; y: number }[]) =>
    points.map((p) => `${X(p.x).toFixed(1)},${Y(p.y).toFixed(1)}`).join(' ');
  return (
    <Plot w={S} h={S} least={14} role="img" aria-label={label} style={{ background: 'var(--field)', borderRadius: 4 }}>
      <path
        d={`M${X(-half)} ${S}V${Y(half)}H${S}V${Y(-half)}H${X(half)}V${S}Z`}
        fill="var(--taxiway)"
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
      <path
        d={`M${X(0)} ${S}V${Y(0)}H${S}`}
        fill="none"
        stroke="var(--centre)"
        strokeWidth="1.5"
        strokeDasharray="8 7"
      />
      {lights.map((p) => (
        <circle key={`${p.x} ${p.y}`} cx={X(p.x)} cy={Y(p.y)} r="4" fill="var(--lagoon)" stroke="var(--card)" />
      ))}
      <path d={path((f) => f.inside)} fill="none" stroke="var(--ink)" strokeWidth="2.5" />
      <path d={path((f) => f.outside)} fill="none" stroke="var(--ink)" strokeWidth="2.5" />
      <path d={path((f) => f.third)} fill="none" stroke="var(--brick)" strokeWidth="3.5" strokeDasharray="9 4" />
      {now ? (
        <g>
          <polygon
            points={poly([
              now.tipOutside,
              body(0.35, -corner.spanM / 2),
              body(0.55, 0),
              body(0.35, corner.spanM / 2),
              now.tipInside,
            ])}
            fill="var(--lagoon)"
            opacity="0.35"
          />
          <polygon
            points={poly([
              body(nose, -0.3),
              body(nose, 0.3),
              body(0, 0.55),
              body(tail, 0.12),
              body(tail, -0.12),
              body(0, -0.55),
            ])}
            fill="var(--lagoon)"
            stroke="var(--card)"
          />
          <circle cx={X(now.inside.x)} cy={Y(now.inside.y)} r="5" fill="var(--ink)" />
          <circle cx={X(now.outside.x)} cy={Y(now.outside.y)} r="5" fill="var(--ink)" />
          <circle cx={X(now.third.x)} cy={Y(now.third.y)} r="6" fill="var(--brick)" stroke="var(--card)" />
        </g>
      ) : null}
      <g fontSize="14" fill="var(--ink)">
        <path d="M14 16H44" stroke="var(--ink)" strokeWidth="2.5" />
        <text x="50" y="20" className="halo">
          main wheels
        </text>
        <path d="M150 16H180" stroke="var(--brick)" strokeWidth="3.5" strokeDasharray="9 4" />
        <text x="186" y="20" className="halo">
          {corner.layout}
        </text>
      </g>
    </Plot>
  );
}
