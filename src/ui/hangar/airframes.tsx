import { dateText } from '@/core/format';
import { sheetDifferences } from '@/core/sheet';
import type { Airframe } from '@/domain/sheet';
import { ATTRIBUTES } from '@/domain/handling';
import type { TypeSheet } from '@/domain/sheet';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';
import { Source } from '../shared/source';
import { Value } from './value';

export interface AirframeShown {
  id: string;
  registration: string;
  version: number;
  airframe: Airframe;
  /** The type's sheet with what this registration changes in it. */
  effective: TypeSheet;
  versions: readonly { author: string; createdAt: string }[];
}
/** The same registration with nothing that differs from its type. */
const plainOf = (a: Airframe) => ({
  schema: a.schema,
  registration: a.registration,
  typeCode: a.typeCode,
  emptyKg: null,
  emptyArmM: null,
  dialTable: null,
  crosswindLimitKt: null,
  flapTable: null,
  flapTableSource: null,
  modifications: [],
  attributes: [],
  equipment: [],
  hoursToInspection: null,
  deferredDefects: [],
  insurer: null,
});

/** Each registration with what differs from its type. */
export function AirframesOfType({
  code,
  edits,
  frames,
  sheet,
  unit,
}: {
  code: string;
  edits: boolean;
  frames: readonly AirframeShown[];
  sheet: TypeSheet;
  unit: 'kt' | 'mph';
}) {
  return (
    <Panel title="Aeroplanes of this type">
      {frames.length === 0 ? <p className="mb-0">None yet. {edits ? 'Add the first below.' : ''}</p> : null}
      <div className="scroll-x" hidden={frames.length === 0}>
        <table aria-label="Aeroplanes of this type" className="plain">
          <thead>
            <tr>
              <th scope="col">Registration</th>
              <th scope="col" className="r">
                Empty
              </th>
              <th scope="col" className="r">
                To next inspection
              </th>
              <th scope="col">Differs from the type</th>
              <th scope="col">Version</th>
              {edits ? (
                <th scope="col">
                  <span className="visually-hidden">Edit</span>
                </th>
              ) : null}
            </tr>
          </thead>
          <tbody>
            {frames.map((a) => {
              const differs = sheetDifferences(plainOf(a.airframe), a.airframe, unit).filter(
                (d) => !['hoursToInspection'].includes(d.path),
              );
              return (
                <tr key={a.id}>
                  <td className="code-face">{a.registration}</td>
                  <td className="r">
                    <Value of={a.effective.masses.emptyKg} unit="kg" />
                  </td>
                  <td className="r">
                    <Value of={a.airframe.hoursToInspection} unit="h" />
                  </td>
                  <td>
                    {a.airframe.modifications.map((m) => (
                      <div key={m.name}>
                        <strong>{m.name}:</strong> {m.effect}
                        <Source source={m.source} reference={m.ref} />
                      </div>
                    ))}
                    {a.airframe.attributes.map((x) => (
                      <div key={x.key} className="small">
                        {ATTRIBUTES[x.key].name}: {x.value} instead of{' '}
                        {sheet.attributes.find((t) => t.key === x.key)?.value ?? 'nothing'}
                      </div>
                    ))}
                    {a.airframe.crosswindLimitKt ? (
                      <div>
                        Crosswind at most <Value of={a.airframe.crosswindLimitKt} unit="kt" />
                      </div>
                    ) : null}
                    {a.airframe.flapTable ? (
                      <div>
                        Flap in crosswind:{' '}
                        {a.airframe.flapTable.map((r) => `${r.maxFlapDeg}° to ${r.upToKt ?? 'any'} kt`).join(', ')}{' '}
                        <span className="soft">({a.airframe.flapTableSource})</span>
                      </div>
                    ) : null}
                    {a.airframe.dialTable ? (
                      <div>
                        Own dial error:{' '}
                        {a.airframe.dialTable
                          .map((r) => `${r.correction > 0 ? '+' : ''}${r.correction} at ${r.ias}`)
                          .join(', ')}
                      </div>
                    ) : null}
                    {a.airframe.deferredDefects.map((d) => (
                      <div key={d.text} className="v-edge">
                        {d.text}, since {dateText(d.since)}, until {d.until}
                      </div>
                    ))}
                    {a.airframe.equipment.length > 0 ? (
                      <div className="small">Also: {a.airframe.equipment.join(', ')}</div>
                    ) : null}
                    {a.airframe.insurer ? (
                      <div className="small">
                        Insurer: {a.airframe.insurer.text} <span className="soft">{a.airframe.insurer.ref}</span>
                      </div>
                    ) : null}
                    {differs.length === 0 ? <span className="soft">nothing</span> : null}
                  </td>
                  <td className="small">
                    {a.version}
                    {a.versions[0] ? `, ${a.versions[0].author}, ${dateText(a.versions[0].createdAt)}` : ''}
                  </td>
                  {edits ? (
                    <td>
                      <Link href={`/hangar/${code}/${a.registration}/edit`}>
                        Edit<span className="visually-hidden"> {a.registration}</span>
                      </Link>
                    </td>
                  ) : null}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </Panel>
  );
}
