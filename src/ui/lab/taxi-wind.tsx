'use client';
import { useState } from 'react';
import { fixed } from '@/core/format';
import { taxiControls } from '@/core/wind';
import { Panel } from '../shared/parts';
import { Plot } from '../shared/plot';
import { Range } from './range';

const S = 260;
const ELEVATOR = { aft: 'back', neutral: 'neutral', forward: 'forward' } as const;

/** Where the controls are held while taxiing, on an aeroplane that is turned under the wind. */
export function TaxiWind({ layout }: { layout: 'tailwheel' | 'nosewheel' | 'hull' }) {
  const [state, setState] = useState({ from: 45, kt: 12, taxi: 5 });
  const at = taxiControls({ windFromDeg: state.from, windKt: state.kt, taxiKt: state.taxi, layout });
  // The field stands still: the wind blows from above, and the aeroplane is turned under it.
  const heading = -state.from;
  const stick = at.aileronUp === 'neutral' ? 'neutral' : `to the ${at.aileronUp}`;
  const said =
    `Wind ${fixed(state.kt)} kt from ${fixed(Math.abs(state.from))}\u00b0 ` +
    `${state.from === 0 ? 'ahead' : state.from > 0 ? 'right of the nose' : 'left of the nose'}: ` +
    `stick ${stick}, elevator ${ELEVATOR[at.elevator]}.`;
  const turn = (e: React.PointerEvent<SVGSVGElement>) => {
    if (e.buttons === 0 && e.type !== 'pointerdown') return;
    const box = e.currentTarget.getBoundingClientRect();
    const x = e.clientX - box.left - box.width / 2;
    const y = e.clientY - box.top - box.height / 2;
    if (Math.hypot(x, y) < 12) return;
    const to = (Math.atan2(x, -y) * 180) / Math.PI;
    setState((s) => ({ ...s, from: Math.round(-to / 5) * 5 === -180 ? 180 : Math.round(-to / 5) * 5 }));
  };
  const up = (side: 'left' | 'right') => at.aileronUp === side;
  return (
    <Panel title="Controls while taxiing">
      <div className="taxi-wind">
        <Plot
          w={S}
          h={S}
          least={14}
          role="img"
          aria-label={said}
          className="lab-figure"
          style={{ touchAction: 'none', cursor: 'grab', maxWidth: 300 }}
          onPointerDown={turn}
          onPointerMove={turn}
        >
          <rect width={S} height={S} fill="var(--taxiway)" />
          <path
            d={`M${S / 2} 8V46M${S / 2 - 9} 34L${S / 2} 46L${S / 2 + 9} 34`}
            stroke="var(--ochre)"
            strokeWidth="4"
            fill="none"
          />
          <text x={S / 2 + 14} y="26" fontSize="15" fill="var(--ochre)" className="halo">
            {fixed(state.kt)} kt
          </text>
          <g transform={`rotate(${heading} ${S / 2} ${S / 2 + 12}) translate(${S / 2} ${S / 2 + 12})`}>
            <path d="M-88 -12H88V10H-88Z" fill="var(--lagoon)" />
            <path d="M-9 -52Q0 -66 9 -52L7 72H-7Z" fill="var(--lagoon)" />
            <path d="M-32 60H32V74H-32Z" fill="var(--lagoon)" />
            <path d="M-86 6H-46V16H-86Z" fill={up('left') ? 'var(--brick)' : 'var(--ink)'} />
            <path d="M46 6H86V16H46Z" fill={up('right') ? 'var(--brick)' : 'var(--ink)'} />
            <path d="M-32 71H32V80H-32Z" fill={at.elevator === 'neutral' ? 'var(--ink)' : 'var(--brick)'} />
            <circle cx="0" cy="-34" r="5" fill="var(--card)" />
          </g>
        </Plot>
        <div>
          <p className="mb-2">
            <strong role="status">{said}</strong>
          </p>
          <p className="small mb-2">
            {at.aileronUp === 'neutral' ? 'Ailerons neutral' : `${at.aileronUp} aileron up`}
            {at.elevator === 'aft' ? ', elevator up' : at.elevator === 'forward' ? ', elevator down' : ''}. Air over the
            aeroplane: {fixed(at.airKt)} kt {Math.abs(at.airFromDeg) > 90 ? 'from behind' : 'from ahead'}.
          </p>
          <Range
            id="taxi-from"
            label="Wind from, off the nose"
            value={state.from}
            min={-175}
            max={180}
            step={5}
            unit="°"
            said={`${fixed(Math.abs(state.from))}\u00b0${state.from === 0 ? '' : state.from > 0 ? ' right' : ' left'}`}
            onChange={(from) => setState({ ...state, from })}
          />
          <Range
            id="taxi-kt"
            label="Wind"
            value={state.kt}
            min={0}
            max={30}
            unit="kt"
            onChange={(kt) => setState({ ...state, kt })}
          />
          <Range
            id="taxi-speed"
            label="Taxi speed"
            value={state.taxi}
            min={0}
            max={20}
            unit="kt"
            onChange={(taxi) => setState({ ...state, taxi })}
          />
          <p className="soft small mb-0">Climb into the wind, dive away from it. Red: the surface that is held.</p>
        </div>
      </div>
    </Panel>
  );
}
