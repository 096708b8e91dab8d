import { TableHead } from '../shared/table-head';
import { sheetPolar } from '@/core/sheet';
import type { Sourced, TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';
import { GeometryDrawing } from './geometry-drawing';
import { Value } from './value';

/** Its drawing, and whether the view from the seat was measured. */
export function TheAeroplane({ code, sheet }: { code: string; sheet: TypeSheet }) {
  return (
    <Panel title="The aeroplane">
      <GeometryDrawing sheet={sheet} />
      <p className="mb-0 small">
        {sheet.sight ? (
          <>
            View from the seat {say(sheet.sight.source)}: {sheet.sight.ref}.{' '}
          </>
        ) : (
          'The view from the seat is not measured yet. '
        )}
        <Link href={`/lab/sight-picture?type=${code}`}>{sheet.sight ? 'See it over the nose' : 'What to measure'}</Link>
      </p>
    </Panel>
  );
}

/** Settings with what they give, and the marks of the temperatures. */
export function PowerTable({ sheet, unit }: { sheet: TypeSheet; unit: 'kt' | 'mph' }) {
  return (
    <Panel title="Power, expected speed and flow">
      {sheet.powerTable.length === 0 ? (
        <p className="soft mb-0">No power table on the sheet.</p>
      ) : (
        <div className="scroll-x">
          <table aria-label="Power, expected speed and flow" className="plain">
            <TableHead columns={['Phase', 'Set', { right: 'Expect' }, { right: 'Flow' }]} />
            <tbody>
              {sheet.powerTable.map((p) => (
                <tr key={p.phase}>
                  <td>{p.phase}</td>
                  <td>{p.setting}</td>
                  <td className="r">
                    <Value of={p.ias} unit={unit} />
                  </td>
                  <td className="r">
                    <Value of={p.flowLPerH} unit="L/h" />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {sheet.temperatures.map((t) => (
        <p key={t.name} className="mb-0 small">
          {t.name}: {t.low ? <Value of={t.low} unit={t.unit} /> : 'no low mark'} to{' '}
          {t.high ? <Value of={t.high} unit={t.unit} /> : 'no high mark'}. {t.note}
        </p>
      ))}
    </Panel>
  );
}

type Line = readonly [name: string, value: Sourced | null, unit: string];
function linesOf(sheet: TypeSheet): Line[] {
  const unit = sheet.dial.unit;
  return [
    ['Maximum take-off mass', sheet.masses.maxTakeoffKg, 'kg'],
    ['Empty mass, type', sheet.masses.emptyKg, 'kg'],
    ['Baggage at most', sheet.masses.maxBaggageKg, 'kg'],
    [sheet.engine.count > 1 ? 'Power, each of two' : 'Power', sheet.engine.powerHp, 'hp'],
    ['Usable fuel', sheet.engine.usableFuelL, 'L'],
    ['Fuel flow', sheet.engine.flowLPerH, 'L/h'],
    ['Wing area', sheet.wing.areaM2, 'm²'],
    ['Best glide ratio', sheet.wing.bestGlideRatio, ': 1'],
    ['Steering', sheet.gear.steerDeg, '°'],
    ['Load factor', sheet.loadFactor.positive, 'g'],
    ['Load factor, negative', sheet.loadFactor.negative, 'g'],
    ['Crosswind limitation', sheet.crosswind.limitationKt, 'kt'],
    ['Crosswind demonstrated', sheet.crosswind.demonstratedKt, 'kt'],
    ['Tailwind limit', sheet.crosswind.tailwindLimitKt, 'kt'],
    ['Least runway width', sheet.landing.minWidthM, 'm'],
    ...(sheet.gear.retractable
      ? ([
          ['Gear extension', sheet.speeds.vloExtend, unit],
          ['Gear retraction', sheet.speeds.vloRetract, unit],
          ['Gear extended', sheet.speeds.vle, unit],
        ] as const)
      : []),
    ...(sheet.twin
      ? ([
          ['Vmca', sheet.twin.vmca, unit],
          ['Vsse', sheet.twin.vsse, unit],
          ['Vyse', sheet.twin.vyse, unit],
          ['Ceiling on one engine', sheet.twin.oneEngineCeilingFt, 'ft'],
        ] as const)
      : []),
  ];
}

/** Masses, engine and limits, each with its source. */
export function MassesAndLimits({ sheet }: { sheet: TypeSheet }) {
  const polar = sheetPolar(sheet);
  return (
    <Panel title="Masses, engine, limits">
      <table aria-label="Masses, engine, limits" className="plain">
        <tbody>
          {linesOf(sheet).map(([name, v, u]) => (
            <tr key={name}>
              <td>{name}</td>
              <td className="r">
                <Value of={v} unit={u} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mb-0 mt-2 small">
        Drag from the glide: CD0 {polar.cd0.toFixed(3)}, k {polar.k.toFixed(3)}; a model for slowing down and reach.
      </p>
    </Panel>
  );
}
