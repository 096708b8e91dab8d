import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { dateText, fixed, withUnit } from '@/core/format';
import { sheetDifferences, sheetPolar, validateSheet } from '@/core/sheet';
import { ATTRIBUTES } from '@/domain/handling';
import type { Sourced, TypeSheet } from '@/domain/sheet';
import { LIMIT_NAME, say } from '@/domain/words';
import { decidePowerAction, endGroundingAction, groundAirframeAction } from '../../../actions';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { airframeVersions, hangar, typeVersions } from '@/server/hangar/queries/hangar';
import { powerFindings } from '@/server/hangar/queries/findings';
import { PowerFindings } from '@/ui/hangar/power-found';
import { DifferenceList, FindingList } from '@/ui/hangar/findings';
import { GeometryDrawing } from '@/ui/hangar/geometry-drawing';
import { SpeedLadder } from '@/ui/hangar/speed-ladder';
import { newestContent } from '@/server/rules/content';
import { groundings } from '@/server/hangar/queries/groundings';
import { GroundedNote } from '@/ui/stops/grounded-note';
import { Groundings, GroundForm } from '@/ui/stops/groundings';
import { Outranked, Panel, Title } from '@/ui/shared/parts';
import { Source, SourceKey } from '@/ui/shared/source';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Type sheet' };

const digits = (v: number): number => (Number.isInteger(v) ? 0 : Math.abs(v) < 0.1 ? 3 : (v * 10) % 1 === 0 ? 1 : 2);
/** A number with its source; what other sources say stands beside it with the difference. */
const Value = ({ of, unit }: { of: Sourced | null; unit: string }) =>
  of ? (
    <span>
      <span className="mono" style={{ whiteSpace: 'nowrap' }}>
        {withUnit(of.value, unit, digits(of.value))}
        <Source source={of.source} reference={of.ref} />
      </span>
      {(of.others ?? []).map((o) => (
        <span key={o.ref} className="soft small" style={{ display: 'block' }}>
          {say(o.source)} {withUnit(o.value, unit, digits(o.value))} ({o.value > of.value ? '+' : ''}
          {fixed(o.value - of.value, digits(o.value - of.value))}), {o.ref}
        </span>
      ))}
    </span>
  ) : (
    <span className="soft">not on the sheet</span>
  );

export default async function TypePage({ params }: { params: Promise<{ type: string }> }) {
  const user = await requireUser();
  const code = (await params).type;
  const type = (await hangar()).find((t) => t.code === code);
  denyUnless(type !== undefined);
  const { sheet } = type;
  const unit = sheet.dial.unit;
  const findings = validateSheet(sheet);
  const versions = await typeVersions(code);
  const frames = await Promise.all(
    type.airframes.map(async (a) => ({
      ...a,
      versions: await airframeVersions(a.registration),
      plain: plainOf(a.airframe),
    })),
  );
  const edits = may.changeHouse(user);
  const grounded = (await groundings()).filter((g) => type.airframes.some((a) => a.registration === g.registration));
  const pack = (await newestContent('house', 'house'))?.body.homePack ?? 'us';
  const flags = grounded.filter((g) => g.ended === null);
  const found = may.seeEverybody(user) ? await powerFindings(code) : [];
  const polar = sheetPolar(sheet);
  const rows: [string, Sourced | null, string][] = [
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
        ] as [string, Sourced | null, string][])
      : []),
    ...(sheet.twin
      ? ([
          ['Vmca', sheet.twin.vmca, unit],
          ['Vsse', sheet.twin.vsse, unit],
          ['Vyse', sheet.twin.vyse, unit],
          ['Ceiling on one engine', sheet.twin.oneEngineCeilingFt, 'ft'],
        ] as [string, Sourced | null, string][])
      : []),
  ];
  return (
    <>
      <PageStrip name={sheet.name} line={`type sheet version ${type.version}, ${sheet.revision}`} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title={sheet.name}
            line={`${sheet.summary} Version ${type.version} by ${type.author}, ${dateText(type.createdAt)}: ${type.reason}.`}
          >
            <a className="btn btn-outline-primary" href={`/api/v1/types/${code}`} download={`${code}.json`}>
              JSON
            </a>
            {edits ? (
              <Link className="btn btn-primary" href={`/hangar/${code}/edit`}>
                Edit
              </Link>
            ) : null}
          </Title>
          <div className="grid">
            {type.airframes.map((a) => (
              <GroundedNote key={a.id} registration={a.registration} groundings={flags} pack={pack} />
            ))}
            {findings.length > 0 ? (
              <Panel title={findings.length === 1 ? 'One thing does not fit' : `${findings.length} things do not fit`}>
                <FindingList findings={findings} />
              </Panel>
            ) : null}
            <Panel title={`Speeds to scale, indicated, in ${unit === 'mph' ? 'miles per hour' : 'knots'}`}>
              <SpeedLadder sheet={sheet} />
            </Panel>
            <div className="grid g-3-2">
              <Panel title="Approach, gate by gate">
                <div className="scroll-x">
                  <table className="plain">
                    <thead>
                      <tr>
                        <th>Gate</th>
                        <th className="r">Height</th>
                        <th className="r">To go</th>
                        <th className="r">Speed</th>
                        <th>Configuration</th>
                        <th>Power</th>
                      </tr>
                    </thead>
                    <tbody>
                      {sheet.approach.map((g) => (
                        <tr key={g.name}>
                          <td>{g.name}</td>
                          <td className="r mono">{g.heightFt} ft</td>
                          <td className="r mono">{g.distanceM} m</td>
                          <td className="r">
                            <Value of={g.speed} unit={unit} />
                          </td>
                          <td className="mono">
                            {g.flapDeg}°{g.gear === 'fixed' ? '' : `, gear ${g.gear}`}
                          </td>
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
              <Panel title="Stall, power off">
                <table className="plain">
                  <thead>
                    <tr>
                      <th>Flap</th>
                      <th className="r">Indicated</th>
                      <th className="r">Flap limit</th>
                    </tr>
                  </thead>
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
                                [...sheet.speeds.vfe]
                                  .sort((a, b) => a.flapDeg - b.flapDeg)
                                  .find((v) => v.flapDeg >= s.flapDeg)?.speed ?? null
                              }
                              unit={unit}
                            />
                          )}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
                <p className="mb-0 mt-2 small">
                  Dial error:{' '}
                  {sheet.dial.table.map((r) => `${r.correction > 0 ? '+' : ''}${r.correction} at ${r.ias}`).join(', ')}{' '}
                  {unit}, calibrated less indicated
                  <Source source={sheet.dial.source} reference={sheet.dial.ref} />
                </p>
              </Panel>
            </div>
            <div className="grid g-3-2">
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
                  <Link href={`/lab/sight-picture?type=${code}`}>
                    {sheet.sight ? 'See it over the nose' : 'What to measure'}
                  </Link>
                </p>
              </Panel>
              <Panel title="Power, expected speed and flow">
                {sheet.powerTable.length === 0 ? (
                  <p className="soft mb-0">No power table on the sheet.</p>
                ) : (
                  <table className="plain">
                    <thead>
                      <tr>
                        <th>Phase</th>
                        <th>Set</th>
                        <th className="r">Expect</th>
                        <th className="r">Flow</th>
                      </tr>
                    </thead>
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
                )}
                {sheet.temperatures.map((t) => (
                  <p key={t.name} className="mb-0 small">
                    {t.name}: {t.low ? <Value of={t.low} unit={t.unit} /> : 'no low mark'} to{' '}
                    {t.high ? <Value of={t.high} unit={t.unit} /> : 'no high mark'}. {t.note}
                  </p>
                ))}
              </Panel>
            </div>
            {found.length > 0 ? (
              <Panel title="Power found in flight">
                <PowerFindings
                  decides={edits}
                  decide={decidePowerAction}
                  findings={found.map((f) => {
                    const old = sheet.powerTable.find((p) => p.phase === f.data.phase);
                    return {
                      id: f.id,
                      unit: f.unit,
                      what: `${f.data.phase}: ${f.data.setting} gave ${withUnit(f.data.speed, f.unit)}, ${f.data.vertical}`,
                      where: `${f.registration}, ${dateText(f.flownOn)}, ${f.authorName}`,
                      now: old ? `${old.setting}${old.ias ? `, ${withUnit(old.ias.value, unit)}` : ''}` : null,
                      decided: f.decided
                        ? `${f.decided.decision === 'approved' ? `On the sheet since version ${f.decided.version ?? ''}` : 'Left in the record'}, ${f.decided.by}, ${dateText(f.decided.at)}: ${f.decided.reason}`
                        : null,
                    };
                  })}
                />
              </Panel>
            ) : null}
            <Panel title="How it handles">
              <div className="cols-2">
                {sheet.attributes.map((a) => (
                  <div key={a.key} className="pair2">
                    <span className="soft">{ATTRIBUTES[a.key].name}</span>
                    <span>
                      {a.value}
                      <Source source={a.source} reference={a.ref} />
                    </span>
                  </div>
                ))}
              </div>
            </Panel>
            <div className="grid g-3">
              <Panel title="Masses, engine, limits">
                <table className="plain">
                  <tbody>
                    {rows.map(([name, v, u]) => (
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
                  Drag from the glide: CD0 {polar.cd0.toFixed(3)}, k {polar.k.toFixed(3)}; a model for slowing down and
                  reach.
                </p>
              </Panel>
              <Loading sheet={sheet} />
              <div className="grid" style={{ alignContent: 'start' }}>
                <Panel title="From the instructor's seat">
                  <table className="plain">
                    <tbody>
                      {sheet.instructorSeat.map((s) => (
                        <tr key={s.control}>
                          <td>{s.control}</td>
                          <td>
                            {s.reach === 'reached' ? s.reach : <strong>{s.reach}</strong>}
                            {s.note ? <div className="soft small">{s.note}</div> : null}
                          </td>
                        </tr>
                      ))}
                    </tbody>
                  </table>
                </Panel>
                <Panel title="Flap in crosswind">
                  {sheet.crosswind.flapTable.length === 0 ? (
                    <p className="mb-0">{sheet.flapSteps.length > 1 ? 'No table on the sheet.' : 'No flap.'}</p>
                  ) : (
                    <table className="plain">
                      <tbody>
                        {sheet.crosswind.flapTable.map((r) => (
                          <tr key={String(r.upToKt)}>
                            <td className="mono">{r.upToKt === null ? 'any' : `to ${r.upToKt} kt`}</td>
                            <td className="mono">{r.maxFlapDeg}°</td>
                            <td>{r.reason}</td>
                          </tr>
                        ))}
                      </tbody>
                    </table>
                  )}
                  <p className="soft mb-0 small">{sheet.crosswind.flapTableSource}</p>
                </Panel>
              </div>
            </div>
            <div className="grid g-3">
              {sheet.afterLimit.length > 0 ? (
                <Panel title="After a limit was passed">
                  {sheet.afterLimit.map((a) => (
                    <p key={a.channel} className="mb-1">
                      <strong>{LIMIT_NAME[a.channel]}:</strong> {a.text}
                      <Source source={a.source} reference={a.ref} />
                    </p>
                  ))}
                </Panel>
              ) : null}
              <Panel title="Notes">
                {sheet.handling.map((h) => (
                  <p key={h.text} className="mb-1">
                    {h.text}
                    <Source source={h.source} reference={h.ref} />
                  </p>
                ))}
              </Panel>
              <Panel title="Checks and flows">
                {sheet.flows.map((f) => (
                  <p key={f.name} className="mb-1">
                    <strong>{f.name}</strong>
                    <Source source={f.source} reference={f.ref} />: {f.steps.join(', ')}.
                  </p>
                ))}
                <p className="mb-0">
                  <strong>Go-around</strong>: {sheet.goAroundFlow.join(', ')}.
                </p>
              </Panel>
              <Panel title="Exits and equipment">
                {sheet.exits.map((h) => (
                  <p key={h.text} className="mb-1">
                    {h.text}
                    <Source source={h.source} reference={h.ref} />
                  </p>
                ))}
                <p className="mb-0">{sheet.equipment.join(', ')}.</p>
              </Panel>
            </div>
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
            <Panel title="Aeroplanes of this type">
              <div className="scroll-x">
                <table className="plain">
                  <thead>
                    <tr>
                      <th>Registration</th>
                      <th className="r">Empty</th>
                      <th className="r">To inspection</th>
                      <th>Differs from the type</th>
                      <th>Version</th>
                      {edits ? (
                        <th>
                          <span className="visually-hidden">Edit</span>
                        </th>
                      ) : null}
                    </tr>
                  </thead>
                  <tbody>
                    {frames.map((a) => {
                      const differs = sheetDifferences(a.plain, a.airframe, unit).filter(
                        (d) => !['hoursToInspection'].includes(d.path),
                      );
                      return (
                        <tr key={a.id}>
                          <td className="mono">{a.registration}</td>
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
                                {a.airframe.flapTable
                                  .map((r) => `${r.maxFlapDeg}° to ${r.upToKt ?? 'any'} kt`)
                                  .join(', ')}{' '}
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
                                Insurer: {a.airframe.insurer.text}{' '}
                                <span className="soft">{a.airframe.insurer.ref}</span>
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
            {may.seeEverybody(user) ? (
              <Panel title="Out of service">
                {grounded.filter((g) => g.kind !== 'limit').length === 0 ? (
                  <p className="mb-2">Nothing on record.</p>
                ) : (
                  <div className="mb-2">
                    <Groundings
                      lines={grounded.filter((g) => g.kind !== 'limit')}
                      end={endGroundingAction}
                      mayEnd={may.endGrounding(user)}
                    />
                  </div>
                )}
                <GroundForm
                  airframes={type.airframes.map((a) => ({ id: a.id, registration: a.registration }))}
                  chief={may.ground(user, 'school')}
                  ground={groundAirframeAction}
                />
              </Panel>
            ) : null}
            <Panel title="Versions">
              {versions.map((v, i) => {
                const before = versions[i + 1];
                return (
                  <details key={v.id} className="mb-1" open={i === 0 && before !== undefined}>
                    <summary>
                      <strong>{v.version}</strong> {dateText(v.createdAt)}, {v.author}: {v.reason}
                    </summary>
                    {before ? (
                      <DifferenceList differences={sheetDifferences(before.sheet, v.sheet, unit)} />
                    ) : (
                      <p className="soft small mb-0">The first.</p>
                    )}
                  </details>
                );
              })}
            </Panel>
            <Outranked />
            <SourceKey />
          </div>
        </div>
      </main>
    </>
  );
}

/** Stations, envelope, trim and electrics; what is not on the sheet says so. */
function Loading({ sheet }: { sheet: TypeSheet }) {
  const { loading, electrical } = sheet;
  return (
    <div className="grid" style={{ alignContent: 'start' }}>
      <Panel title="Loading">
        {!loading ? (
          <p className="soft mb-0">Not on the sheet: mass and balance cannot be computed.</p>
        ) : (
          <>
            <p className="mb-1 small">Metres aft of the datum, {loading.datum}.</p>
            <table className="plain">
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
              {loading.trim
                ? ` Trim, ${loading.trim.unit}: ${loading.trim.rows.map((r) => `${r.trim} at ${r.armM.toFixed(2)} m`).join(', ')} (${loading.trim.ref}).`
                : ''}
            </p>
          </>
        )}
      </Panel>
      <Panel title="Electrics">
        {!electrical ? (
          <p className="soft mb-0">Not on the sheet: how long things live cannot be computed.</p>
        ) : (
          <>
            <p className="mb-1">
              Battery <Value of={electrical.batteryAh} unit="Ah" />
            </p>
            <table className="plain">
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

/** The same registration with nothing that differs from its type. */
const plainOf = (a: { schema: 'airframe/1'; registration: string; typeCode: string }) => ({
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
