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
                <table aria-label={k === 'takeoff' ? 'Take-off distances' : 'Landing distances'} className="plain">
                  <thead>
                    <tr>
                      <th scope="col">{k === 'takeoff' ? 'Take-off' : 'Landing'}</th>
                      <th scope="col" className="r">
                        Pressure altitude
                      </th>
                      <th scope="col" className="r">
                        Air
                      </th>
                      <th scope="col" className="r">
                        Ground
                      </th>
                      <th scope="col" className="r">
                        Over 50 ft
                      </th>
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
