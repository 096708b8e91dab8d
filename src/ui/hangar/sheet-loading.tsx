import { withUnit } from '@/core/format';
import type { TypeSheet } from '@/domain/sheet';
import { Panel } from '../shared/parts';
import { Value } from './value';

const trimText = ({ unit, rows, ref }: NonNullable<NonNullable<TypeSheet['loading']>['trim']>): string =>
  `Trim, ${unit}: ${rows.map((r) => `${r.trim} at ${r.armM.toFixed(2)} m`).join(', ')} (${ref}).`;

/** Stations, envelope, trim and electrics; what is not on the sheet says so. */
export function LoadingAndElectrics({ sheet }: { sheet: TypeSheet }) {
  const { loading, electrical } = sheet;
  return (
    <div className="grid" style={{ alignContent: 'start' }}>
      <Panel title="Loading">
        {!loading ? (
          <p className="soft mb-0">Not on the sheet: mass and balance cannot be computed.</p>
        ) : (
          <>
            <p className="mb-1 small">Metres aft of the datum, {loading.datum}.</p>
            <table aria-label="Loading" className="plain">
              <tbody>
                <tr>
                  <td>Empty</td>
                  <td className="r">
                    <Value of={loading.emptyArmM} unit="m" />
                  </td>
                  <td />
                </tr>
                {loading.stations.map((s) => (
                  <tr key={s.name}>
                    <td>{s.name}</td>
                    <td className="r">
                      <Value of={s.armM} unit="m" />
                    </td>
                    <td className="r">{s.maxKg ? <Value of={s.maxKg} unit="kg" /> : null}</td>
                  </tr>
                ))}
                <tr>
                  <td>Fuel</td>
                  <td className="r">
                    <Value of={loading.fuelArmM} unit="m" />
                  </td>
                  <td />
                </tr>
              </tbody>
            </table>
            <p className="mb-0 mt-1 small">
              Envelope {loading.envelope.map((p) => `${p.armM.toFixed(2)} m ${p.massKg} kg`).join(', ')} (
              {loading.envelopeRef}).
              {loading.trim ? ` ${trimText(loading.trim)}` : ''}
            </p>
          </>
        )}
      </Panel>
      <Panel title="Electrics">
        {!electrical ? (
          <p className="soft mb-0">Not on the sheet: how long consumers last cannot be computed.</p>
        ) : (
          <>
            <p className="mb-1">
              Battery <Value of={electrical.batteryAh} unit="Ah" />
            </p>
            <table aria-label="Electrics" className="plain">
              <tbody>
                {electrical.consumers.map((c) => (
                  <tr key={c.name}>
                    <td>
                      {c.name}
                      {c.dependsOn.length > 0 ? (
                        <span className="soft small"> needs {c.dependsOn.join(', ')}</span>
                      ) : null}
                    </td>
                    <td className="r mono">{withUnit(c.amps, 'A', 1)}</td>
                    <td className="small">
                      {c.shedAtMin === null ? '' : `off after ${c.shedAtMin} min`}
                      {c.backupMin > 0 ? `own cell ${c.backupMin} min` : ''}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="soft small mb-0">{electrical.ref}</p>
          </>
        )}
      </Panel>
    </div>
  );
}
