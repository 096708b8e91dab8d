import { TableHead } from '../shared/table-head';
import { gateConfiguration } from '@/core/approach';
import type { TypeSheet } from '@/domain/sheet';
import { Panel } from '../shared/parts';
import { Source } from '../shared/source';
import { Value } from './value';

/** The gates of the approach as the sheet has them. */
export function ApproachGates({ sheet, unit }: { sheet: TypeSheet; unit: 'kt' | 'mph' }) {
  // Neither flap nor gear to set: no column of nothing.
  const set = sheet.approach.map((g) => gateConfiguration({ ...g, flapWithheld: false }, sheet.flapSteps.length > 1));
  const configured = set.some((words) => words !== '');
  return (
    <Panel title="Approach, gate by gate">
      <div className="scroll-x">
        <table aria-label="Approach, gate by gate" className="plain">
          <TableHead
            columns={[
              'Gate',
              { right: 'Height' },
              { right: 'To go' },
              { right: 'Speed' },
              ...(configured ? ['Configuration'] : []),
              'Power',
            ]}
          />
          <tbody>
            {sheet.approach.map((g, i) => (
              <tr key={g.name}>
                <td>{g.name}</td>
                <td className="r mono">{g.heightFt} ft</td>
                <td className="r mono">{g.distanceM} m</td>
                <td className="r">
                  <Value of={g.speed} unit={unit} />
                </td>
                {configured ? <td className="mono">{set[i]}</td> : null}
                <td>{g.power}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mb-0 mt-2 small">
        {sheet.landing.speedSchool === 'reducing'
          ? 'The speed always falls: a plateau is the error.'
          : 'A constant speed at each gate.'}
        {sheet.sanctionedMargin
          ? ` The handbook sanctions ${sheet.sanctionedMargin.ratio} of the stall (${sheet.sanctionedMargin.source}).`
          : ''}
      </p>
    </Panel>
  );
}

/** Stalls and flap limits side by side, with the error of the dial. */
export function StallTable({ sheet, unit }: { sheet: TypeSheet; unit: 'kt' | 'mph' }) {
  const flapped = sheet.flapSteps.length > 1;
  return (
    <Panel title="Stall, power off">
      {flapped ? (
        <table aria-label="Stall, power off" className="plain">
          <TableHead columns={['Flap', { right: 'Indicated' }, { right: 'Flap limit' }]} />
          <tbody>
            {sheet.stalls.map((s) => (
              <tr key={s.flapDeg}>
                <td className="mono">{s.flapDeg}°</td>
                <td className="r">
                  <Value of={s.speed} unit={unit} />
                </td>
                <td className="r">
                  {s.flapDeg === 0 ? (
                    ''
                  ) : (
                    <Value
                      of={
                        [...sheet.speeds.vfe].sort((a, b) => a.flapDeg - b.flapDeg).find((v) => v.flapDeg >= s.flapDeg)
                          ?.speed ?? null
                      }
                      unit={unit}
                    />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        sheet.stalls.map((stall) => (
          <p key={stall.flapDeg} className="mb-0">
            <Value of={stall.speed} unit={unit} /> indicated
          </p>
        ))
      )}
      <p className="mb-0 mt-2 small">
        Dial error:{' '}
        {sheet.dial.table.map((r) => `${r.correction > 0 ? '+' : ''}${r.correction} at ${r.ias}`).join(', ')} {unit},
        calibrated less indicated
        <Source source={sheet.dial.source} reference={sheet.dial.ref} />
      </p>
    </Panel>
  );
}
