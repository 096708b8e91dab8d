import { TableHead } from '../shared/table-head';
import {
  type BriefResult,
  type RunwayToday,
  crosswindSentences,
  dialError,
  gateConfiguration,
  goAroundTriggers,
  oneEngineLines,
  seatLacks,
} from '@/core/approach';
import { KT_PER_MPH } from '@/core/constants';
import {
  ageText,
  fixed,
  headwindWords,
  hoursText,
  localText,
  list,
  metresUp,
  plural,
  windText,
  withUnit,
  upTo,
  downTo,
} from '@/core/format';
import { sheetOn } from '@/core/sheet';
import type { BriefChoices } from '@/domain/brief';
import { BLOCK_NAME } from '@/domain/plan';
import type { House, SchoolTopic } from '@/domain/programme';
import type { Aerodrome, Sourced, TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import type { ReactNode } from 'react';
import { Live } from '../shared/live';
import { Source } from '../shared/source';
import { Verdict } from '../shared/verdict';
import { EnvelopeDrawing } from './envelope';
import { HabitList } from './habit-list';
import { LabNotes } from './lab-notes';
import { AirspaceStrip, LimitBars, ProfileDrawing, RunwayDial, RunwayStrip, directionText } from './drawings';

export interface BriefFacts {
  pilotName: string;
  registration: string;
  sheet: TypeSheet;
  house: House;
  aerodrome: Aerodrome;
  schools: { topic: string; name: string; reason: string }[];
  pic: { who: string; reason: string; logs: string };
  insurer: { text: string; ref: string } | null;
  defects: string[];
}
export interface Shown extends BriefFacts {
  /** Takes a page of the lab out again, where the brief is worked on. */
  removeModel?: (id: string) => void;
  choices: BriefChoices;
  result: BriefResult;
}

/** The side chosen on each topic, with its reason. */
export const chosenSchools = (
  topics: readonly SchoolTopic[],
  chosen: Readonly<Record<string, string>>,
): BriefFacts['schools'] =>
  topics.flatMap((t) => {
    const side = t.sides.find((s) => s.key === (chosen[t.key] ?? t.fallback));
    return side ? [{ topic: t.topic, name: side.name, reason: side.reason }] : [];
  });

const Missing = ({ children }: { children: ReactNode }) => <span className="soft">{children}</span>;

export const BLOCK_BODIES: Record<string, (s: Shown) => ReactNode> = {
  plan: ({ choices }) =>
    choices.plan ? (
      <ol className="mb-0 cols-2">
        {choices.plan.map((b) => (
          <li key={b.id}>
            <strong>{b.title}</strong>, {b.minutes} min <span className="soft small">{BLOCK_NAME[b.kind]}</span>
          </li>
        ))}
      </ol>
    ) : (
      <Missing>No plan yet. The debrief proposes one.</Missing>
    ),
  models: ({ choices, removeModel }) => <LabNotes notes={choices.models ?? []} remove={removeModel ?? null} />,
  path: (s) => {
    const additive = s.result.gates.find((g) => g.additive > 0)?.additive ?? 0;
    return (
      <>
        <ProfileDrawing result={s.result} unit={s.result.unit} hasFlap={s.sheet.flapSteps.length > 1} />
        <p className="mb-0 small">
          {additive > 0 ? (
            <>{withUnit(additive, s.result.unit, 1)} for the gusts is in the gates on final. </>
          ) : (
            'No gust additive in these speeds. '
          )}
          {s.result.unit === 'mph' ? 'Miles per hour, as on this dial. ' : ''}Scaled from {s.result.landingRefMassKg} kg
          to <Live text={withUnit(s.result.massKg, 'kg')} />. Heights above the aerodrome, below them the altimeter on
          QNH.
        </p>
      </>
    );
  },
  wind: (s) => {
    const { result, choices } = s;
    const used = result.runways.find((r) => r.ident === choices.runwayEnd);
    const said = crosswindSentences(result, choices.runwayEnd, s.pilotName.split(' ')[0] ?? s.pilotName);
    return (
      <>
        <RunwayDial
          result={result}
          runwayEnd={choices.runwayEnd}
          windText={choices.wind ? windText(choices.wind) : 'unknown'}
        />
        {choices.wind ? (
          <p className="soft mb-1 small">
            {directionText(result.windTrueDeg, result.windMagneticDeg)}; {used ? headwindWords(used.headwindKt) : ''};{' '}
            {localText(choices.wind.observedAt, s.aerodrome.timeZone)}
            {result.windAgeMin === null ? '' : `, ${ageText(result.windAgeMin)} old`}
          </p>
        ) : null}
        <p className="mb-1">
          <strong>
            <Live text={said.lead} />
          </strong>
        </p>
        <p className="mb-1">
          {result.crosswind.verdict ? (
            <Verdict verdict={result.crosswind.verdict}>
              <Live text={said.verdict} />
            </Verdict>
          ) : result.crosswind.reason === 'no-limit' && result.crosswind.aboveDemonstrated ? (
            <Verdict verdict="edge">
              <Live text={said.verdict} />
            </Verdict>
          ) : (
            <Live text={said.verdict} />
          )}
        </p>
        {used && used.reasons.length > 0 && choices.wind ? (
          <p className="mb-1">
            Runway {used.ident}: {used.reasons.join('; ')}.
          </p>
        ) : null}
        {choices.wind && !result.chosenEnd ? (
          <p className="mb-1 soft">No runway is suitable today; the reasons are below.</p>
        ) : null}
        {result.chosenEnd && result.chosenEnd !== choices.runwayEnd ? (
          <p className="mb-1 soft">Best runway: {result.chosenEnd}, least crosswind of those long and wide enough.</p>
        ) : null}
        {s.sheet.flapSteps.length > 1 ? (
          <p className="mb-0">
            {result.flap.verdict === 'outside' ? (
              <Verdict verdict="outside">no flap setting in this crosswind</Verdict>
            ) : result.flap.verdict === 'within' ? (
              <>
                Maximum flap{' '}
                <strong>
                  <Live text={`${result.flap.maxFlapDeg ?? 0}°`} />
                </strong>
                : {result.flap.reason}. <span className="soft small">{s.sheet.crosswind.flapTableSource}</span>
              </>
            ) : (
              <Missing>
                {result.crosswind.reason === 'no-recent-wind'
                  ? 'No wind of the last ten minutes, so no verdict on flap.'
                  : 'No flap table for this airframe.'}
              </Missing>
            )}
          </p>
        ) : null}
      </>
    );
  },
  habits: ({ result }) => <HabitList habits={result.habits ?? []} />,
  gates: ({ result, sheet, choices }) => {
    const here = sheetOn(sheet, result.surface ?? 'land') ?? sheet;
    // Neither flap nor gear to set: no column of nothing.
    const configured = result.gates.some((g) => gateConfiguration(g, sheet.flapSteps.length > 1) !== '');
    return (
      <>
        <div className="scroll-x">
          <table aria-label="Approach speeds today" className="plain">
            <TableHead
              columns={[
                'Gate',
                { right: 'Fly' },
                { right: 'Sheet' },
                ...(configured ? ['Configuration'] : []),
                'Power',
                { right: 'Over the stall' },
                { right: 'Time to it' },
                'Slowing',
              ]}
            />
            <tbody>
              {result.gates.map((g) => {
                const leg = result.legs.find((l) => l.to === g.name);
                return (
                  <tr key={g.name}>
                    <td>
                      {g.name}
                      <div className="soft small">
                        {g.heightFt} ft, {g.altimeterFt} QNH
                      </div>
                    </td>
                    <td className="r num">
                      <Live text={withUnit(g.target, result.unit)} />
                      {g.beyondTable ? <div className="soft small">beyond the dial’s table</div> : null}
                    </td>
                    <td className="r mono">
                      {withUnit(g.sheetValue, result.unit)}
                      <Source source={g.source as never} reference={g.sourceRef} />
                    </td>
                    {configured ? (
                      <td className="mono">
                        <Live text={gateConfiguration(g, sheet.flapSteps.length > 1)} />
                      </td>
                    ) : null}
                    <td>
                      {g.power}
                      {g.whites === null ? null : <div className="soft small">slope lights: {g.whites} white</div>}
                    </td>
                    <td className="r">
                      {g.margin?.marginLevel ? (
                        <span className="mono">
                          <Live text={g.margin.marginLevel.toFixed(2)} />
                        </span>
                      ) : (
                        <Missing>not known</Missing>
                      )}
                      {g.margin?.lowLevel ? (
                        <div>
                          <Verdict verdict="outside">under 1.3</Verdict>
                        </div>
                      ) : g.margin?.sanctionedBy ? (
                        <div className="soft small">by {g.margin.sanctionedBy}</div>
                      ) : null}
                    </td>
                    <td className="r mono">{leg?.timeS ? <Live text={withUnit(leg.timeS, 's')} /> : ''}</td>
                    <td>
                      {!leg || leg.canSlow === null ? (
                        ''
                      ) : leg.canSlow === 'yes' ? (
                        <Verdict verdict="within">slows</Verdict>
                      ) : leg.canSlow === 'tight' ? (
                        <Verdict verdict="edge">tight</Verdict>
                      ) : (
                        <Verdict verdict="outside">cannot</Verdict>
                      )}
                      {leg?.slopeDeg ? <div className="soft small">{fixed(leg.slopeDeg, 1)}° down</div> : null}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
        {result.unit === 'mph' ? (
          <details className="small mt-2">
            <summary>In knots</summary>
            {result.gates
              .map((g) => `${g.name} ${g.target === null ? 'no speed' : withUnit(g.target * KT_PER_MPH, 'kt')}`)
              .join(', ')}
            ; indicated, for the radio and for thinking, never for this dial.
          </details>
        ) : null}
        <p className="mb-0 mt-2 small">
          Stall today{' '}
          {result.vsToday
            .map(
              (v) =>
                `${upTo(v.dial)} ${result.unit}${sheet.flapSteps.length > 1 ? ` flap ${v.flapDeg}°` : ''}${v.beyondTable ? '*' : ''}`,
            )
            .join(', ')}
          ; manoeuvring <Live text={`${downTo(result.vaDial)} ${result.unit}`} />; best glide{' '}
          <Live text={`${upTo(result.bestGlideDial)} ${result.unit}`} />
          {result.vsToday.some((v) => v.beyondTable)
            ? '; * beyond the dial’s error table, its last correction held'
            : ''}
          ; as indicated, speed over stall in calibrated. Stabilised by {result.stabilised.heightFt} ft (
          {result.stabilised.altimeterFt} QNH), else go around.
          {lightsWords(result, choices.runwayEnd, here.landing.aimPointM.value)}
          {dialError(result, sheet) ? ` ${dialError(result, sheet)}` : ''}
          {sheet.twin ? ` Never below Vyse ${sheet.twin.vyse.value} ${result.unit} until landing is assured.` : ''}
        </p>
      </>
    );
  },
  limits: ({ result, choices }) => <LimitBars result={result} runwayEnd={choices.runwayEnd} />,
  runway: ({ result, choices, house }) => {
    const used = result.runways.find((r) => r.ident === choices.runwayEnd);
    if (!used) return <Missing>Choose a runway.</Missing>;
    return (
      <>
        <RunwayStrip
          used={used}
          takeoffM={result.takeoff?.need.over50M ?? null}
          landingM={result.landing?.need.over50M ?? null}
          landmark={result.landmark}
        />
        {used.obstacle ? (
          <p className="mb-0 mt-1">
            In the way of a take-off: {used.obstacle.name}, {withUnit(used.obstacle.heightFt, 'ft')} above the far end,{' '}
            {withUnit(used.obstacle.pastEndM, 'm')} past it. The handbook’s distance ends at 50 ft over the runway.
          </p>
        ) : null}
        <div className="grid g-1-1 mt-2">
          {(['takeoff', 'landing'] as const).map((kind) => (
            <Distance
              key={kind}
              title={kind === 'takeoff' ? 'Take-off' : 'Landing'}
              r={result[kind]}
              lengthM={used.lengthM}
            />
          ))}
        </div>
        <p className="soft mb-0 small">
          Factors: {house.runway.source}. The safety factor is the school’s, not the handbook’s.
        </p>
      </>
    );
  },
  air: ({ result, sheet }) => {
    const { air } = result;
    if (air.densityAltFt === null)
      return (
        <Missing>
          {list(air.missing)} not known. Density altitude, true airspeed and the distances cannot be computed without
          it: paste a report, or type it above.
        </Missing>
      );
    const share = ((air.tasShare ?? 1) - 1) * 100;
    const last = result.gates[result.gates.length - 1];
    return (
      <>
        <p className="mb-1">
          <span className="num" style={{ fontSize: 26 }}>
            <Live text={withUnit(Math.round(air.densityAltFt / 10) * 10, 'ft')} />
          </span>{' '}
          density altitude
        </p>
        <p className="mb-1">
          Aerodrome at {withUnit(air.pressureAltFt, 'ft')} pressure altitude; {fixed(Math.abs(air.isaDevC ?? 0))} °C{' '}
          {(air.isaDevC ?? 0) >= 0 ? 'warmer' : 'colder'} than standard.
        </p>
        <p className="mb-0">
          Indicated speeds stay the same; true airspeed is {fixed(share)} % higher:{' '}
          {last?.cas ? `${withUnit(last.cas.targetKt * (air.tasShare ?? 1), 'kt')} true at the threshold` : ''}.{' '}
          {share > 8 ? 'Take-off and climb are longer; the flare looks faster.' : ''}{' '}
          {sheet.engine.induction === 'carburetted' ? 'Lean by the handbook.' : ''}
        </p>
      </>
    );
  },
  load: ({ result, sheet, choices }) => {
    if (!result.loading)
      return (
        <Missing>
          No stations on the sheet: loading cannot be computed. Mass {withUnit(result.massKg, 'kg')} of{' '}
          {result.maxMassKg} kg.
        </Missing>
      );
    const { dual, solo, trim } = result.loading;
    return (
      <>
        <div className="grid g-1-1" style={{ alignItems: 'start' }}>
          <EnvelopeDrawing sheet={sheet} dual={dual} solo={solo} />
          <table aria-label="Mass and centre of gravity" className="plain">
            <TableHead columns={['Aboard', { right: 'Mass' }, { right: 'Centre' }, 'Envelope']} />
            <tbody>
              {(
                [
                  ['Both, take-off', dual.takeOff],
                  ['Both, landing', dual.landing],
                  ['Both, no fuel', dual.zeroFuel],
                  ['Solo, take-off', solo.takeOff],
                  ['Solo, landing', solo.landing],
                ] as const
              ).map(([name, p]) => (
                <tr key={name}>
                  <td>{name}</td>
                  <td className="r mono">
                    <Live text={withUnit(p.massKg, 'kg')} />
                  </td>
                  <td className="r mono">
                    <Live text={withUnit(p.armM, 'm', 3)} />
                  </td>
                  <td>
                    {p.inside ? (
                      <Verdict verdict={p.edgeDistance < 0.03 ? 'edge' : 'within'}>inside</Verdict>
                    ) : (
                      <Verdict verdict="outside">outside</Verdict>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <p className="mb-0 small">
          Of {result.maxMassKg} kg
          <Source source={sheet.masses.maxTakeoffKg.source} reference={sheet.masses.maxTakeoffKg.ref} />:{' '}
          {result.massKg <= result.maxMassKg ? (
            <Live text={`${fixed(result.maxMassKg - result.massKg)} kg in hand`} />
          ) : (
            <Live text={`${fixed(result.massKg - result.maxMassKg)} kg too heavy`} />
          )}
          .{' '}
          {trim ? (
            <>
              Trim:{' '}
              <strong>
                <Live text={`${fixed(trim.dual, 1)} ${trim.unit}`} />
              </strong>{' '}
              with both, <strong>{fixed(trim.solo, 1)}</strong> solo{trim.outside ? ' (outside the trim table)' : ''}
              .{' '}
            </>
          ) : (
            ''
          )}
          Empty {withUnit(sheet.masses.emptyKg.value, 'kg')}
          <Source source={sheet.masses.emptyKg.source} reference={sheet.masses.emptyKg.ref} />, baggage{' '}
          {withUnit(choices.baggageKg, 'kg')} of {sheet.masses.maxBaggageKg.value}
          <Source source={sheet.masses.maxBaggageKg.source} reference={sheet.masses.maxBaggageKg.ref} />.
        </p>
      </>
    );
  },
  fuel: ({ result, choices, sheet, house }) => {
    const { fuel } = result;
    return (
      <>
        <p className="mb-1">
          <span className="num" style={{ fontSize: 30 }}>
            <Live text={String(fuel.circuits.circuits)} />
          </span>{' '}
          circuits fit: the <strong>{fuel.circuits.limitedBy}</strong> limits it.
        </p>
        <p className="mb-1">
          {withUnit(choices.fuelL, 'L')} at {withUnit(fuel.flowLPerH, 'L/h')}
          <Source source={sheet.engine.flowLPerH.source} reference={fuel.flowSource} /> is{' '}
          <Live text={hoursText(fuel.endurance.totalMin)} />; to the reserve of {fuel.endurance.reserveMin} min{' '}
          <strong>
            <Live text={hoursText(fuel.endurance.usableMin)} />
          </strong>
          .
        </p>
        <p className="mb-1">
          Booking {withUnit(choices.bookingMin, 'min')}, on the ground {fixed(fuel.circuits.groundMin)} min
          {fuel.groundFlights ? ` (median of ${plural(fuel.groundFlights, 'flight')} here)` : ' (school figure)'}, a
          circuit {house.circuitMin} min (school figure).
        </p>
        <p className="soft mb-0 small">
          By power and specific consumption at 65 %: {withUnit(fuel.formulaLPerH, 'L/h')}; the sheet’s flow governs.
          {(sheet.engine.flowLPerH.others ?? [])
            .map((o) => ` Also ${say(o.source)}: ${o.value} L/h (${o.ref}).`)
            .join('')}{' '}
          {choices.night ? 'Night reserve.' : ''}
        </p>
      </>
    );
  },
  goaround: ({ result, house, sheet }) => (
    <>
      <ul className="mb-2 ps-3">
        {goAroundTriggers(result, house, sheet).map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
      <p className="soft mb-0 small">
        Then: {sheet.goAroundFlow.join(', ')}.
        {sheet.twin
          ? ` On one engine no go-around below ${sheet.twin.goAroundDecisionFt.value} ft (${sheet.twin.goAroundDecisionFt.ref}).`
          : ''}{' '}
        {house.reference}.
      </p>
    </>
  ),
  'one-engine': ({ result, choices, sheet }) =>
    result.oneEngine && sheet.twin ? (
      <>
        <ul className="mb-2 ps-3">
          {oneEngineLines(result.oneEngine, choices.runwayEnd).map((t) => (
            <li key={t}>{t}.</li>
          ))}
        </ul>
        <p className="soft mb-0 small">
          At the greatest mass, a lighter one takes no credit; gradients in still air, a tailwind counted.{' '}
          {withUnit(sheet.twin.oneEngineClimbFpm.value, 'ft/min')}
          <Source source={sheet.twin.oneEngineClimbFpm.source} reference={sheet.twin.oneEngineClimbFpm.ref} /> at sea
          level, ceiling {withUnit(sheet.twin.oneEngineCeilingFt.value, 'ft')}
          <Source source={sheet.twin.oneEngineCeilingFt.source} reference={sheet.twin.oneEngineCeilingFt.ref} /> of
          density altitude; linear between them.
        </p>
      </>
    ) : (
      <Missing>One engine.</Missing>
    ),
  control: ({ pic, house, sheet }) => (
    <>
      <p className="mb-1">
        Pilot in command: <strong>{pic.who}</strong>.{' '}
        <span className="soft small">
          {pic.reason} {pic.logs}
        </span>
      </p>
      <p className="mb-0">
        {house.exchangeWords.join(', ')}: hands <em>and feet</em> clear. A nudge is not taking control. Help comes
        early; it costs nothing in the record.
      </p>
      {seatLacks(sheet).map((t) => (
        <p key={t} className="mb-0 mt-1">
          <strong>From the instructor’s seat.</strong> {t}.
        </p>
      ))}
    </>
  ),
  failures: ({ house, sheet, insurer, defects }) => (
    <>
      <ul className="mb-1 ps-3">
        {[...house.simulatedFailures, ...(sheet.twin ? house.twinFailures : [])].map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
      <p className="mb-1">
        <strong>Out:</strong>{' '}
        {sheet.exits.map((e) => (
          <span key={e.text}>
            {e.text}
            <Source source={e.source} reference={e.ref} />{' '}
          </span>
        ))}
      </p>
      {defects.length > 0 ? (
        <p className="mb-1">
          <strong>Deferred:</strong> {list(defects)}.
        </p>
      ) : null}
      {insurer ? (
        <p className="mb-0 small">
          Insurer: {insurer.text} <span className="soft">{insurer.ref}</span>
        </p>
      ) : null}
    </>
  ),
  flows: ({ sheet, house }) => (
    <>
      {sheet.flows.map((f) => (
        <p key={f.name} className="mb-2">
          <strong>{f.name}</strong>
          <Source source={f.source} reference={f.ref} />: {f.steps.join(', ')}.
        </p>
      ))}
      <p className="mb-0">
        <strong>Five on final:</strong> {house.finalChecks.join(', ')}.
      </p>
    </>
  ),
  engine: ({ sheet, result }) => (
    <>
      {sheet.powerTable.length === 0 ? (
        <Missing>No power table on the sheet.</Missing>
      ) : (
        <div className="scroll-x">
          <table aria-label="Power settings" className="plain">
            <TableHead columns={['Phase', 'Set', { right: 'Expect' }, { right: 'Flow' }]} />
            <tbody>
              {sheet.powerTable.map((p) => (
                <tr key={p.phase}>
                  <td>{p.phase}</td>
                  <td>{p.setting}</td>
                  <td className="r mono">{sourced(p.ias, result.unit)}</td>
                  <td className="r mono">{sourced(p.flowLPerH, 'L/h')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {sheet.temperatures.map((t) => (
        <p key={t.name} className="mb-1 mt-1 small">
          {t.name}:{' '}
          {t.low ? (
            <>
              from {withUnit(t.low.value, t.unit)}
              <Source source={t.low.source} reference={t.low.ref} />
            </>
          ) : (
            ''
          )}{' '}
          {t.high ? (
            <>
              to {withUnit(t.high.value, t.unit)}
              <Source source={t.high.source} reference={t.high.ref} />
            </>
          ) : (
            ''
          )}{' '}
          {t.note}
        </p>
      ))}
      <p className="mb-0 small">
        {sheet.coolingClimb ? (
          <>
            Hot: climb at {withUnit(sheet.coolingClimb.value, result.unit)}
            <Source source={sheet.coolingClimb.source} reference={sheet.coolingClimb.ref} /> instead of Vy{' '}
            {withUnit(result.vyDial, result.unit)}: cooler, and a flatter climb.
          </>
        ) : (
          <Missing>No cooling climb speed on the sheet.</Missing>
        )}
      </p>
    </>
  ),
  electrics: ({ result, sheet }) => {
    if (!result.electrics || !sheet.electrical)
      return <Missing>No electrical data on the sheet: how long consumers last cannot be computed.</Missing>;
    const { electrics } = result;
    return (
      <>
        <p className="mb-1">
          All left on the battery lasts <strong>{withUnit(electrics.enduranceAllOnMin, 'min')}</strong>; with the
          shedding below the bus dies after <strong>{withUnit(electrics.busDeadMin, 'min')}</strong>.{' '}
          <span className="soft small">
            {withUnit(sheet.electrical.batteryAh.value, 'Ah')}
            <Source source={sheet.electrical.batteryAh.source} reference={sheet.electrical.batteryAh.ref} />,{' '}
            {fixed((sheet.electrical.usableShare?.value ?? 0.7) * 100)} % usable; {sheet.electrical.ref}. A model: an
            old battery gives less.
          </span>
        </p>
        <table aria-label="What dies when" className="plain">
          <tbody>
            {electrics.events.map((e) => (
              <tr key={e.name}>
                <td className="r mono">{withUnit(e.tMin, 'min')}</td>
                <td>{e.name}</td>
                <td className="soft">
                  {e.cause === 'shed'
                    ? 'switch it off'
                    : e.cause === 'battery'
                      ? 'dies with the bus'
                      : 'dies with what it needs'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </>
    );
  },
  schools: ({ schools }) => (
    <dl className="schools mb-0">
      {schools.map((t) => (
        <div key={t.topic}>
          <dt>
            {t.topic}: <strong>{t.name}</strong>
          </dt>
          <dd className="soft small">{t.reason}</dd>
        </div>
      ))}
    </dl>
  ),
  airspace: ({ aerodrome }) =>
    aerodrome.airspace.length === 0 ? (
      <Missing>None entered for this aerodrome.</Missing>
    ) : (
      <>
        <AirspaceStrip aerodrome={aerodrome} />
        <p className="soft mb-0 small">{aerodrome.source}. The chart of the day outranks it.</p>
      </>
    ),
  second: ({ choices, result }) => {
    const s = choices.second;
    if (!s) return <Missing>One aeroplane today.</Missing>;
    return (
      <p className="mb-0">
        <strong>{s.registration || 'The other'}</strong>: {s.leads === 'this' ? 'we lead' : 'the other leads'}
        {s.position ? `, ${s.position}` : ''}. Meet {s.place || 'at a place to be agreed'}
        {s.heightFt === null ? '' : ` at ${withUnit(s.heightFt, 'ft')}`}
        {s.at ? `, ${s.at}` : ''}.{' '}
        {s.breakS === null ? (
          'Break interval to be agreed.'
        ) : (
          <>
            Break <strong>{s.breakS} s</strong> apart:{' '}
            <strong>
              <Live text={metresUp(result.breakM)} />
            </strong>{' '}
            between us when both have turned over the same point.
          </>
        )}{' '}
        Formation only by arrangement (91.111 or the law of the place).
      </p>
    );
  },
};

/** Where the slope lights lead, beside where this schedule aims; a count of lights is not given without their place. */
function lightsWords(result: BriefResult, runwayEnd: string, aimM: number): string {
  const used = result.runways.find((r) => r.ident === runwayEnd);
  if (!used?.slopeLightsDeg) return '';
  return used.slopeLightsM == null
    ? ' Slope lights here, but where they stand is not entered: no count of them is given.'
    : ` The slope lights lead down ${fixed(used.slopeLightsDeg, 1)}° to ${withUnit(used.slopeLightsM, 'm')} past the threshold; this schedule aims at ${withUnit(aimM, 'm')}.`;
}

const sourced = (v: Sourced | null, unit: string): ReactNode =>
  v ? (
    <>
      {withUnit(v.value, unit)}
      <Source source={v.source} reference={v.ref} />
    </>
  ) : (
    <Missing>not on the sheet</Missing>
  );

function Distance({ title, r, lengthM }: { title: string; r: RunwayToday | null; lengthM: number }) {
  if (!r) return null;
  if (r.words)
    return (
      <div>
        <strong>{title}</strong>
        <p className="soft mb-0">{r.words}.</p>
      </div>
    );
  const { need } = r;
  return (
    <div>
      <p className="mb-1">
        <strong>{title}</strong>{' '}
        <span className="num">
          <Live text={metresUp(need.over50M)} />
        </span>{' '}
        over 50 ft of {lengthM} m:{' '}
        {need.verdict === 'enough' ? (
          <Verdict verdict={(need.marginM ?? 0) < 0.1 * lengthM ? 'edge' : 'within'}>
            <Live text={`${metresUp(Math.floor(need.marginM ?? 0))} in hand`} />
          </Verdict>
        ) : need.length === 'not-enough' ? (
          <Verdict verdict="outside">
            <Live text={`${metresUp(-(need.marginM ?? 0))} too short`} />
          </Verdict>
        ) : (
          <Verdict verdict="outside">too narrow</Verdict>
        )}
      </p>
      <p className="soft mb-1 small">
        Handbook {metresUp(r.tableOver50M)} (roll {metresUp(r.tableGroundM)}), {r.source}
        {need.steps.map((f) => `; ${f.name === 'safety' ? 'safety' : f.name} ×${f.factor.toFixed(2)}`).join('')}.{' '}
        {plural(need.steps.length, 'factor')}.
      </p>
    </div>
  );
}
