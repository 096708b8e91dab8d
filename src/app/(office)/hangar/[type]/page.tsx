import type { Metadata } from 'next';
import { dateText, withUnit } from '@/core/format';
import type { Sourced } from '@/domain/sheet';
import { denyUnless, requireUser } from '@/server/auth/session';
import { hangar } from '@/server/queries/hangar';
import { SpeedLadder } from '@/ui/hangar/speed-ladder';
import { Outranked, Panel, Title } from '@/ui/shared/parts';
import { Source, SourceKey } from '@/ui/shared/source';
import { PageStrip } from '@/ui/shared/strip';

export const metadata: Metadata = { title: 'Type sheet' };

const Value = ({ of, unit }: { of: Sourced | null; unit: string }) => (of ? <span className="mono" style={{ whiteSpace: 'nowrap' }}>{withUnit(of.value, unit, Number.isInteger(of.value) ? 0 : of.value % 1 === 0.5 ? 1 : 2)}<Source source={of.source} reference={of.ref} /></span> : <span className="soft">not on the sheet</span>);

export default async function TypePage({ params }: { params: Promise<{ type: string }> }) {
  const user = await requireUser();
  const code = (await params).type;
  const type = (await hangar()).find((t) => t.code === code);
  denyUnless(type !== undefined);
  const { sheet } = type;
  const unit = sheet.dial.unit;
  const rows: [string, Sourced | null, string][] = [
    ['Maximum take-off mass', sheet.masses.maxTakeoffKg, 'kg'], ['Empty mass, type', sheet.masses.emptyKg, 'kg'], ['Baggage at most', sheet.masses.maxBaggageKg, 'kg'], ['Power', sheet.engine.powerHp, 'hp'], ['Usable fuel', sheet.engine.usableFuelL, 'L'], ['Fuel flow', sheet.engine.flowLPerH, 'L/h'],
    ['Wing area', sheet.wing.areaM2, 'm²'], ['Span', sheet.wing.spanM, 'm'], ['Best glide ratio', sheet.wing.bestGlideRatio, ': 1'], ['Track', sheet.gear.trackM, 'm'], ['Wheelbase', sheet.gear.wheelbaseM, 'm'], ['Steering', sheet.gear.steerDeg, 'deg'],
    ['Crosswind limitation', sheet.crosswind.limitationKt, 'kt'], ['Crosswind demonstrated', sheet.crosswind.demonstratedKt, 'kt'], ['Tailwind limit', sheet.crosswind.tailwindLimitKt, 'kt'],
  ];
  return (
    <>
      <PageStrip name={sheet.name} line={`type sheet version ${type.version}, ${sheet.revision}`} user={user.name} />
      <main id="main"><div className="column">
        <Title title={sheet.name} line={`${sheet.summary} Version ${type.version} by ${type.author}, ${dateText(type.createdAt)}: ${type.reason}.`} />
        <div className="grid">
          <Panel title={`Speeds to scale, indicated, in ${unit === 'mph' ? 'miles per hour' : 'knots'}`}><SpeedLadder sheet={sheet} /></Panel>
          <div className="grid g-3-2">
            <Panel title="Approach, gate by gate">
              <div className="scroll-x"><table className="plain"><thead><tr><th>Gate</th><th className="r">Height</th><th className="r">To go</th><th className="r">Speed</th><th className="r">Flap</th><th>Power</th></tr></thead>
                <tbody>{sheet.approach.map((g) => <tr key={g.name}><td>{g.name}</td><td className="r mono">{g.heightFt} ft</td><td className="r mono">{g.distanceM} m</td><td className="r"><Value of={g.speed} unit={unit} /></td><td className="r mono">{g.flapDeg}°</td><td>{g.power}</td></tr>)}</tbody></table></div>
            </Panel>
            <Panel title="Stall, power off">
              <table className="plain"><thead><tr><th>Flap</th><th className="r">Indicated</th><th className="r">Flap limit</th></tr></thead>
                <tbody>{sheet.stalls.map((s) => <tr key={s.flapDeg}><td className="mono">{s.flapDeg}°</td><td className="r"><Value of={s.speed} unit={unit} /></td><td className="r">{s.flapDeg === 0 ? '' : <Value of={sheet.speeds.vfe.find((v) => v.flapDeg === s.flapDeg)?.speed ?? null} unit={unit} />}</td></tr>)}</tbody></table>
              <p className="mb-0 mt-2" style={{ fontSize: 14 }}>Dial error: {sheet.dial.table.map((r) => `${r.correction > 0 ? '+' : ''}${r.correction} at ${r.ias}`).join(', ')} {unit}, calibrated less indicated<Source source={sheet.dial.source} reference={sheet.dial.ref} /></p>
            </Panel>
          </div>
          <div className="grid g-3">
            <Panel title="Masses, engine, geometry"><table className="plain"><tbody>{rows.map(([name, v, u]) => <tr key={name}><td>{name}</td><td className="r"><Value of={v} unit={u} /></td></tr>)}</tbody></table></Panel>
            <div className="grid" style={{ alignContent: 'start' }}>
              <Panel title="Flap in crosswind">{sheet.crosswind.flapTable.length === 0 ? <p className="mb-0">{sheet.flapSteps.length > 1 ? 'No table on the sheet.' : 'No flap.'}</p> : <table className="plain"><tbody>{sheet.crosswind.flapTable.map((r) => <tr key={String(r.upToKt)}><td className="mono">{r.upToKt === null ? 'any' : `to ${r.upToKt} kt`}</td><td className="mono">{r.maxFlapDeg}°</td><td>{r.reason}</td></tr>)}</tbody></table>}<p className="soft mb-0" style={{ fontSize: 13 }}>{sheet.crosswind.flapTableSource}</p></Panel>
              <Panel title="Handling">{sheet.handling.map((h) => <p key={h.text} className="mb-1">{h.text}<Source source={h.source} reference={h.ref} /></p>)}</Panel>
              <Panel title="Exits and go-around">{sheet.exits.map((h) => <p key={h.text} className="mb-1">{h.text}<Source source={h.source} reference={h.ref} /></p>)}<p className="mb-0">Go-around: {sheet.goAroundFlow.join(', ')}.</p></Panel>
            </div>
            <Panel title="From the instructor's seat"><table className="plain"><tbody>{sheet.instructorSeat.map((s) => <tr key={s.control}><td>{s.control}</td><td>{s.reach === 'reached' ? s.reach : <strong>{s.reach}</strong>}{s.note ? <div className="soft" style={{ fontSize: 13 }}>{s.note}</div> : null}</td></tr>)}</tbody></table></Panel>
          </div>
          {sheet.distances ? <Panel title={`Distances, level dry hard runway, ${sheet.distances.ref}`}><div className="grid g-1-1">{(['takeoff', 'landing'] as const).map((k) => <div key={k} className="scroll-x"><table className="plain"><thead><tr><th>{k === 'takeoff' ? 'Take-off' : 'Landing'}</th><th className="r">Pressure altitude</th><th className="r">Air</th><th className="r">Ground</th><th className="r">Over 50 ft</th></tr></thead><tbody>{(sheet.distances?.[k] ?? []).map((r) => <tr key={`${r.massKg}${r.pressureAltFt}${r.oatC}`}><td className="mono">{r.massKg} kg</td><td className="r mono">{r.pressureAltFt} ft</td><td className="r mono">{r.oatC} °C</td><td className="r mono">{r.groundRollM} m</td><td className="r mono">{r.over50FtM} m</td></tr>)}</tbody></table></div>)}</div></Panel> : null}
          <Panel title="Aeroplanes of this type">
            <table className="plain"><thead><tr><th>Registration</th><th className="r">Empty</th><th>Differs from the type</th></tr></thead><tbody>{type.airframes.map((a) => (
              <tr key={a.id}><td className="mono">{a.registration}</td><td className="r"><Value of={a.effective.masses.emptyKg} unit="kg" /></td><td>
                {a.airframe.modifications.map((m) => <div key={m.name}><strong>{m.name}:</strong> {m.effect}<Source source={m.source} reference={m.ref} /></div>)}
                {a.airframe.crosswindLimitKt ? <div>Crosswind at most <Value of={a.airframe.crosswindLimitKt} unit="kt" /></div> : null}
                {a.airframe.flapTable ? <div>Flap in crosswind: {a.airframe.flapTable.map((r) => `${r.maxFlapDeg}° to ${r.upToKt ?? 'any'} kt`).join(', ')} <span className="soft">({a.airframe.flapTableSource})</span></div> : null}
                {a.airframe.modifications.length === 0 ? <span className="soft">only its mass</span> : null}
              </td></tr>
            ))}</tbody></table>
          </Panel>
          <Outranked /><SourceKey />
        </div>
      </div></main>
    </>
  );
}
