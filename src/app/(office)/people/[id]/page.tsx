import { dayHere } from '@/server/rules/today';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { currentUser, denyUnless, requireUser } from '@/server/floor/auth/session';
import { whatStays } from '@/server/people/commands/persons';
import { personName, personPage } from '@/server/people/queries/page';
import { OpenAccount } from '@/ui/account/open-account';
import { EraseForm } from '@/ui/people/forms';
import { LadderDrawing } from '@/ui/people/ladder-drawing';
import { WhatIf } from '@/ui/people/what-if';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import { erasePersonAction, openAccountAction, whatIfAction } from '../../../actions';
import { Standing } from './standing';
import { Flown } from './flown';
import { Goals } from './goals';
import { Held } from './held';
import { Dates } from './dates';
import { InstructorAndRoles } from './roles';
import { Notes } from './notes';

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> {
  const name = await personName(await currentUser(), (await params).id);
  return { title: name ?? 'Person' };
}
const DATE = /^\d{4}-\d{2}-\d{2}$/;

export default async function PersonPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ on?: string }>;
}) {
  const day = await dayHere();
  const user = await requireUser();
  const { id } = await params;
  const { on } = await searchParams;
  const p = await personPage(user, id, on && DATE.test(on) && !Number.isNaN(Date.parse(on)) ? on : null);
  denyUnless(p !== null);
  const own = { pilotId: p.pilotId };
  const keeps = may.keepPeople(user) && may.keepDates(user, own);
  /** A twin variant with the name of its type as the hangar writes it. */
  const heldName = (kind: string): string => {
    const type = p.types.find((t) => kind.endsWith(`:${t.code}`));
    return type ? `${say(kind.split(':')[0] ?? kind)} ${type.name}` : say(kind);
  };
  const stays = may.erasePerson(user, own) && !p.erased ? await whatStays(p.pilotId) : [];
  return (
    <>
      <PageStrip name="People" line={p.name} user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            long
            title={p.name}
            line={
              p.erased
                ? `Erased on ${day(p.erased.at)}: ${p.erased.reason}. Stays: ${p.erased.kept}.`
                : `${p.certificate || 'no licence entered'}, ${p.hours} h, ${p.massKg} kg${p.email && may.seeEverybody(user) ? `, ${p.email}` : ''}`
            }
          >
            {may.importLogbook(user, own) && !p.erased ? (
              <Link className="btn btn-outline-primary" href={`/people/${p.pilotId}/import`}>
                Import a logbook
              </Link>
            ) : null}
            {may.exportRecord(user, own) ? (
              <>
                <a className="btn btn-outline-primary" href={`/api/people/${p.pilotId}/logbook`}>
                  Logbook, CSV
                </a>
                <a className="btn btn-outline-primary" href={`/api/people/${p.pilotId}/record`}>
                  Everything, JSON
                </a>
              </>
            ) : null}
          </Title>
          <div className="grid g-2-1" style={{ alignItems: 'start' }}>
            <div className="grid">
              <Standing p={p} />
              {p.erased ? null : (
                <Panel title="What if">
                  <WhatIf key={p.onDate} pilotId={p.pilotId} onDate={p.onDate} types={p.types} ask={whatIfAction} />
                </Panel>
              )}
              {p.ladders.length > 0 ? (
                <Panel title="Proven crosswind over time">
                  {p.ladders.map((l) => (
                    <LadderDrawing
                      key={l.group}
                      group={l.group}
                      stepKt={l.stepKt}
                      provenKt={l.now.provenKt}
                      ladderKt={l.now.ladderKt}
                      points={l.points}
                      landings={l.landings}
                    />
                  ))}
                </Panel>
              ) : null}
              <Flown own={own} p={p} user={user} />
            </div>
            <div className="grid">
              <Goals p={p} />
              <Held heldName={heldName} keeps={keeps} own={own} p={p} user={user} />
              <Dates own={own} p={p} user={user} />
              {p.user && (p.user.roles.includes('instructor') || may.keepPeople(user)) ? (
                <InstructorAndRoles account={p.user} p={p} user={user} />
              ) : null}
              {!p.user && !p.erased && may.keepPeople(user) ? (
                <Panel title="Account">
                  <p>{p.name} is on record and has no account.</p>
                  <OpenAccount pilotId={p.pilotId} name={p.name} open={openAccountAction} />
                </Panel>
              ) : null}
              {may.writeNote(user, own) || p.notes.length > 0 ? <Notes own={own} p={p} user={user} /> : null}
              {stays.length > 0 ? (
                <Panel title="Privacy">
                  <EraseForm pilotId={p.pilotId} name={p.name} stays={stays} save={erasePersonAction} />
                </Panel>
              ) : null}
            </div>
          </div>
        </div>
      </main>
    </>
  );
}
