import type { TypeSheet } from '@/domain/sheet';
import { Panel } from '../shared/parts';

/** The handbook's distances; without them no runway is computed. */
export function Distances({ sheet }: { sheet: TypeSheet }) {
  return (
    <>
      {sheet.distances ? (
        <Panel title={`Distances, level dry hard runway, ${sheet.distances.ref}`}>
          <div className="grid g-1-1">
            {(['takeoff', 'landing'] as const).map((k) => (
              <div key={k} className="scroll-x">
                <table className="plain">
                  <thead>
                    <tr>
                      <th>{k === 'takeoff' ? 'Take-off' : 'Landing'}</th>
                      <th className="r">Pressure altitude</th>
                      <th className="r">Air</th>
                      <th className="r">Ground</th>
                      <th className="r">Over 50 ft</th>
                    </tr>
                  </thead>
                  <tbody>
                    {(sheet.distances?.[k] ?? []).map((r) => (
                      <tr key={`${r.massKg}${r.pressureAltFt}${r.oatC}`}>
                        <td className="mono">{r.massKg} kg</td>
                        <td className="r mono">{r.pressureAltFt} ft</td>
                        <td className="r mono">{r.oatC} °C</td>
                        <td className="r mono">{r.groundRollM} m</td>
                        <td className="r mono">{r.over50FtM} m</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            ))}
          </div>
        </Panel>
      ) : (
        <Panel title="Distances">
          <p className="soft mb-0">No data on the sheet: runway not computed.</p>
        </Panel>
      )}
    </>
  );
}
