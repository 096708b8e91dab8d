import { dayHere } from '@/server/rules/today';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { dateText, withUnit } from '@/core/format';
import { unconfirmed, validateSheet } from '@/core/sheet';
import { addAeroplaneAction, decidePowerAction, endGroundingAction, groundAirframeAction } from '../../../actions';
import { may } from '@/server/floor/auth/permissions';
import { currentUser, denyUnless, requireUser } from '@/server/floor/auth/session';
import { airframeVersions, hangar, typeVersions } from '@/server/hangar/queries/hangar';
import { powerFindings } from '@/server/hangar/queries/findings';
import { PowerFindings } from '@/ui/hangar/power-found';
import { FindingList } from '@/ui/hangar/findings';
import { LoadingAndElectrics } from '@/ui/hangar/sheet-loading';
import { SpeedLadder } from '@/ui/hangar/speed-ladder';
import { newestContent } from '@/server/rules/content';
import { groundings } from '@/server/hangar/queries/groundings';
import { GroundedNote } from '@/ui/stops/grounded-note';
import { Groundings, GroundForm } from '@/ui/stops/groundings';
import { Outranked, Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { SourceKey } from '@/ui/shared/source';
import { PageStrip } from '@/ui/shared/strip';
import { ApproachGates, StallTable } from '@/ui/hangar/sheet-approach';
import { MassesAndLimits, PowerTable, TheAeroplane } from '@/ui/hangar/sheet-limits';
import { FlapInCrosswind, HowItHandles, InstructorSeat, Procedures } from '@/ui/hangar/sheet-handling';
import { Distances } from '@/ui/hangar/sheet-distances';
import { AddAeroplane } from '@/ui/hangar/add-aeroplane';
import { SampleNote } from '@/ui/hangar/sample-note';
import { AirframesOfType } from '@/ui/hangar/airframes';
import { SheetVersions } from '@/ui/hangar/versions';

export async function generateMetadata({ params }: { params: Promise<{ type: string }> }): Promise<Metadata> {
  const { type } = await params;
  const name = (await currentUser()) ? (await hangar()).find((t) => t.code === type)?.sheet.name : undefined;
  return { title: name ? `Type sheet: ${name}` : 'Type sheet' };
}

export default async function TypePage({ params }: { params: Promise<{ type: string }> }) {
  const day = await dayHere();
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
    })),
  );
  const edits = may.changeHouse(user);
  const samples = unconfirmed(sheet).length;
  const grounded = (await groundings()).filter((g) => type.airframes.some((a) => a.registration === g.registration));
  const pack = (await newestContent('house', 'house'))?.body.homePack ?? 'us';
  const flags = grounded.filter((g) => g.ended === null);
  const found = may.seeEverybody(user) ? await powerFindings(code) : [];
  return (
    <>
      <PageStrip name={sheet.name} line={`type sheet version ${type.version}, ${sheet.revision}`} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            long
            title={sheet.name}
            line={`${sheet.summary.replace(/\.?$/, '.')} Version ${type.version} by ${type.author}, ${day(type.createdAt)}: ${type.reason}.`}
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
            <SampleNote code={code} count={samples} edits={edits} />
            {findings.length > 0 ? (
              <Panel title={findings.length === 1 ? 'One inconsistency' : `${findings.length} inconsistencies`}>
                <FindingList findings={findings} />
              </Panel>
            ) : null}
            <Panel title={`Speeds to scale, indicated, in ${unit === 'mph' ? 'miles per hour' : 'knots'}`}>
              <SpeedLadder sheet={sheet} />
            </Panel>
            <div className="grid g-3-2">
              <ApproachGates sheet={sheet} unit={unit} />
              <StallTable sheet={sheet} unit={unit} />
            </div>
            <div className="grid g-3-2">
              <TheAeroplane code={code} sheet={sheet} />
              <PowerTable sheet={sheet} unit={unit} />
            </div>
            {found.length > 0 ? (
              <Panel title="Power settings noted in flight">
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
                        ? `${f.decided.decision === 'approved' ? `On the sheet since version ${f.decided.version ?? ''}` : 'Kept in the record only'}, ${f.decided.by}, ${day(f.decided.at)}: ${f.decided.reason}`
                        : null,
                    };
                  })}
                />
              </Panel>
            ) : null}
            <HowItHandles sheet={sheet} />
            <div className="grid g-3">
              <MassesAndLimits sheet={sheet} />
              <LoadingAndElectrics sheet={sheet} />
              <div className="grid" style={{ alignContent: 'start' }}>
                <InstructorSeat sheet={sheet} />
                <FlapInCrosswind sheet={sheet} />
              </div>
            </div>
            <Procedures sheet={sheet} />
            <Distances sheet={sheet} />
            <AirframesOfType code={code} edits={edits} frames={frames} sheet={sheet} unit={unit} />
            {edits ? (
              <Panel title="Add an aeroplane">
                <AddAeroplane code={code} add={addAeroplaneAction} />
              </Panel>
            ) : null}
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
            <SheetVersions unit={unit} versions={versions} />
            <Outranked />
            <SourceKey sample={samples > 0} />
          </div>
        </div>
      </main>
    </>
  );
}
