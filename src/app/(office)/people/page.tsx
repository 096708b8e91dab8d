import type { Metadata } from 'next';
import Link from 'next/link';
import { dateText, list } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/auth/permissions';
import { denyUnless, requireUser } from '@/server/auth/session';
import { pilotList, staffList } from '@/server/queries/lists';
import { CertificateForm } from '@/ui/people/certificate-form';
import { Panel, Title } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';
import { saveCertificateAction, savePilotCertificateAction } from '../../actions';

export const metadata: Metadata = { title: 'People' };

export default async function PeoplePage() {
  const user = await requireUser();
  denyUnless(may.seeEverybody(user));
  const [pilots, staff] = await Promise.all([pilotList(), staffList()]);
  return (
    <>
      <PageStrip name="People" line={`${pilots.length} pilots, ${staff.length} instructors`} user={user.name} />
      <main id="main"><div className="column">
        <Title title="People" line="What each pilot holds, and what each instructor may sign.">{may.compareInstructors(user) ? <Link className="btn btn-outline-primary" href="/people/standard">One standard</Link> : null}<Link className="btn btn-outline-primary" href="/rules">Rules and programmes</Link></Title>
        <div className="grid">
          <Panel title="Instructors"><div className="scroll-x"><table className="plain"><thead><tr><th>Name</th><th>Roles</th><th>Authorised to sign</th><th>Certificate, and to when</th></tr></thead><tbody>{staff.map((s) => <tr key={s.id}><td>{s.name}<div className="soft" style={{ fontSize: 13 }}>{s.email}</div></td><td>{list(s.roles)}</td><td>{list(s.authorised.map(say))}</td><td>{may.keepCertificates(user) ? <CertificateForm of={{ userId: s.id }} name={s.name} certificate={s.certificate} until={s.certificateUntil} action={saveCertificateAction} /> : s.certificate ? `${s.certificate}${s.certificateUntil ? `, to ${dateText(s.certificateUntil)}` : ''}` : 'not entered'}</td></tr>)}</tbody></table></div></Panel>
          <Panel title="Pilots"><div className="scroll-x"><table className="plain"><thead><tr><th>Name</th><th>Licence</th><th>Holds</th><th>Flown</th><th className="r">Hours</th><th className="r">Mass</th><th>Record</th></tr></thead><tbody>{pilots.map((p) => <tr key={p.id}><td>{p.name}</td><td>{may.keepPilotRecord(user, { pilotId: p.id }) ? <CertificateForm of={{ pilotId: p.id }} name={p.name} certificate={p.certificate} until={null} action={savePilotCertificateAction} /> : p.certificate}</td><td>{p.holds.map((h) => <div key={h.kind}>{say(h.kind)} <span className="soft">{h.gainedOn ? dateText(h.gainedOn) : ''}</span></div>)}</td><td>{p.experience}</td><td className="r mono">{p.hours} h</td><td className="r mono">{p.massKg} kg</td><td><a href={`/api/people/${p.id}/logbook`}>CSV</a> <a href={`/api/people/${p.id}/record`}>JSON</a></td></tr>)}</tbody></table></div></Panel>
        </div>
      </div></main>
    </>
  );
}
