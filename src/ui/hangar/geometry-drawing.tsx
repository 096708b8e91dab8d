import { Plot } from '../shared/plot';
import { fixed } from '@/core/format';
import type { TypeSheet } from '@/domain/sheet';

/**
 * Side and front view to one scale, made from the numbers of the sheet. A measurement that is missing is named, not
 * drawn.
 */
export function GeometryDrawing({ sheet }: { sheet: TypeSheet }) {
  const g = sheet.geometry;
  const missing = (
    [
      ['length', g.lengthM],
      ['height', g.heightM],
      ['nose to main wheels', g.noseToMainM],
      ['propeller', g.propDiameterM],
      ['tyre', g.tyreDiameterM],
      ['attitude on three wheels', g.groundPitchDeg],
      ['eye above ground', g.eyeHeightM],
      ['nose to eye', g.noseToEyeM],
    ] as const
  )
    .filter(([, v]) => v === null)
    .map(([n]) => n);
  if (!g.lengthM || !g.heightM || !g.noseToMainM || !g.tyreDiameterM)
    return (
      <p className="soft mb-0">
        Not on the sheet: {missing.join(', ')}. Measure with a tape on the hangar floor and enter it; then the aeroplane
        is drawn.
      </p>
    );
  const W = 760;
  const H = 250;
  const span = sheet.wing.spanM.value;
  const scale = (W - 90) / (g.lengthM.value + span + 1.2);
  const ground = H - 44;
  const left = 24;
  const x = (m: number) => left + m * scale;
  const y = (m: number) => ground - m * scale;
  const L = g.lengthM.value;
  const hgt = g.heightM.value;
  const r = g.tyreDiameterM.value / 2;
  const tail = sheet.gear.layout === 'tailwheel';
  const main = g.noseToMainM.value;
  const third = tail ? main + sheet.gear.wheelbaseM.value : Math.max(0.3, main - sheet.gear.wheelbaseM.value);
  const pitch = ((g.groundPitchDeg?.value ?? 0) * Math.PI) / 180;
  const body = hgt * 0.5;
  const belly = tail ? 0.62 * body : 0.7 * body;
  const chord = sheet.wing.areaM2.value / span / (g.wing === 'biplane' ? 2 : 1);
  // The fuselage turns about the main wheel by the attitude on the ground.
  const turn = tail ? (pitch * 180) / Math.PI : 0;
  const wingY =
    g.wing === 'high' || g.wing === 'shoulder' ? belly + body * 0.9 : g.wing === 'biplane' ? belly + body : belly + 0.1;
  const mid = x(L + 1.2) + (span / 2) * scale;
  const fx = (m: number) => mid + m * scale;
  const dim = (a: number, b: number, at: number, label: string) => (
    <g key={label} fontSize="14" fill="var(--slate)">
      <path
        d={`M${a} ${at - 4}V${at + 4}M${a} ${at}H${b}M${b} ${at - 4}V${at + 4}`}
        stroke="var(--slate)"
        fill="none"
      />
      <text x={(a + b) / 2} y={at + 14} textAnchor="middle" className="mono">
        {label}
      </text>
    </g>
  );
  const wings = (front: boolean) =>
    (g.wing === 'biplane' ? [wingY, belly + 0.15] : [wingY]).map((wy) =>
      front ? (
        <rect key={wy} x={fx(-span / 2)} y={y(wy) - 3} width={span * scale} height={6} fill="var(--ink)" rx={3} />
      ) : (
        <ellipse key={wy} cx={x(main - 0.1)} cy={y(wy)} rx={(chord / 2) * scale} ry={4} fill="var(--ink)" />
      ),
    );
  return (
    <Plot
      w={W}
      h={H}
      least={14}
      role="img"
      aria-label={`Side and front view: length ${L} m, span ${span} m, height ${hgt} m, track ${sheet.gear.trackM.value} m, wheelbase ${sheet.gear.wheelbaseM.value} m${g.eyeHeightM ? `, eye ${g.eyeHeightM.value} m above the ground` : ''}.`}
    >
      <path d={`M8 ${ground}H${W - 8}`} stroke="var(--ink)" />
      <g transform={`rotate(${-turn} ${x(main)} ${ground})`}>
        <path
          d={`M${x(0.15)} ${y(belly + body * 0.5)} Q${x(0.2)} ${y(belly + body)} ${x(L * 0.3)} ${y(belly + body * 1.05)} L${x(L * 0.42)} ${y(belly + body * 0.95)} L${x(L)} ${y(belly + body * 0.55)} L${x(L)} ${y(belly + body * 0.4)} L${x(L * 0.35)} ${y(belly)} Q${x(0.2)} ${y(belly)} ${x(0.15)} ${y(belly + body * 0.5)}Z`}
          fill="var(--wash)"
          stroke="var(--ink)"
          strokeWidth="2"
        />
        <path
          d={`M${x(L * 0.86)} ${y(belly + body * 0.6)} L${x(L * 0.95)} ${y(tail ? belly + body * 1.25 : hgt)} L${x(L)} ${y(tail ? belly + body * 1.25 : hgt)} L${x(L)} ${y(belly + body * 0.5)}Z`}
          fill="var(--wash)"
          stroke="var(--ink)"
          strokeWidth="2"
        />
        {wings(false)}
        {g.propDiameterM ? (
          <path
            d={`M${x(0.1)} ${y(belly + body * 0.5 - g.propDiameterM.value / 2)}V${y(belly + body * 0.5 + g.propDiameterM.value / 2)}`}
            stroke="var(--slate)"
            strokeWidth="3"
          />
        ) : null}
      </g>
      {g.eyeHeightM && g.noseToEyeM ? (
        <g>
          <circle cx={x(g.noseToEyeM.value)} cy={y(g.eyeHeightM.value)} r="4" fill="var(--ochre)" />
          <text x={x(g.noseToEyeM.value) + 8} y={y(g.eyeHeightM.value) - 5} fontSize="14" fill="var(--ochre)">
            eye {g.eyeHeightM.value} m
          </text>
        </g>
      ) : null}
      <circle cx={x(main)} cy={y(r)} r={r * scale} fill="var(--card)" stroke="var(--ink)" strokeWidth="3" />
      <circle
        cx={x(third)}
        cy={y(tail ? 0.12 : r * 0.8)}
        r={(tail ? 0.12 : r * 0.8) * scale}
        fill="var(--card)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      {dim(x(0), x(L), ground + 14, `${fixed(L, 1)} m`)}
      {dim(
        x(Math.min(main, third)),
        x(Math.max(main, third)),
        14,
        `wheelbase ${fixed(sheet.gear.wheelbaseM.value, 2)} m`,
      )}
      <ellipse
        cx={mid}
        cy={y(belly + body / 2)}
        rx={body * 0.45 * scale}
        ry={(body / 2) * scale}
        fill="var(--wash)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      {wings(true)}
      {sheet.engine.count > 1
        ? [-1, 1].map((s) => (
            <circle
              key={s}
              cx={fx(s * span * 0.16)}
              cy={y(wingY + 0.1)}
              r={0.28 * scale}
              fill="var(--wash)"
              stroke="var(--ink)"
              strokeWidth="2"
            />
          ))
        : null}
      {[-1, 1].map((s) => (
        <rect
          key={s}
          x={fx((s * sheet.gear.trackM.value) / 2) - 4}
          y={y(r * 2)}
          width={8}
          height={r * 2 * scale}
          rx={3}
          fill="var(--ink)"
        />
      ))}
      {dim(fx(-span / 2), fx(span / 2), ground + 14, `span ${fixed(span, 1)} m`)}
      {dim(
        fx(-sheet.gear.trackM.value / 2),
        fx(sheet.gear.trackM.value / 2),
        14,
        `track ${fixed(sheet.gear.trackM.value, 2)} m`,
      )}
    </Plot>
  );
}
