import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { SCOPES, SCOPE_NAME } from '@/domain/scopes';
import { requireUser } from '@/server/floor/auth/session';
import { originFrom } from '@/server/floor/origin';
import { fieldsOf } from '@/server/interface/fields';
import { ADDRESSES, namesIn } from '@/server/interface/paths';
import { newestSeen } from '@/server/interface/queries/changes';
import { AddressPanel } from '@/ui/account/address-panel';
import { Link } from '@/ui/shared/link';
import { OnThisPage } from '@/ui/shared/on-this-page';
import { Panel } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';
import { Title } from '@/ui/shared/title';

export const metadata: Metadata = { title: 'Interface for programs' };

export default async function InterfacePage() {
  const user = await requireUser();
  const newest = await newestSeen(user);
  const origin = originFrom(await headers());
  return (
    <>
      <PageStrip name="Interface for programs" line="what another program reads" user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="Interface for programs"
            line="Another program reads Jeito with a token of yours: what you may see, and of that what you give it."
          >
            <Link className="btn btn-primary" href="/account#tokens">
              Tokens
            </Link>
            <a className="btn btn-outline-primary" href="/api/v1/openapi.json">
              OpenAPI document
            </a>
          </Title>
          <OnThisPage />
          <div className="grid g-3-2">
            <Panel title="How it answers">
              <ul className="mb-0">
                <li>
                  Send the token as <code className="code-face">Authorization: Bearer</code> and the token. Answers are
                  JSON.
                </li>
                <li>
                  What is not there and what is not yours to see answer alike: 404. A token without the scope: 403. A
                  parameter that does not fit: 400, with the reason beside its name.
                </li>
                <li>
                  Instants are UTC. Days are days at the home aerodrome. Units stand in the names. <b>null</b> is not
                  known: never zero, never good.
                </li>
                <li>Nothing is signed, booked or judged through it. A chief may import a type sheet.</li>
              </ul>
            </Panel>
            <Panel title="Keeping a copy">
              <ol className="mb-0">
                <li>
                  Ask <code className="code-face">/api/v1/changes</code>. Read what it lists, keep its{' '}
                  <code className="code-face">version</code>; while <code className="code-face">more</code> is true, ask
                  again with <code className="code-face">since=</code> that version.
                </li>
                <li>Later ask with the version kept: only what has changed since is listed, each thing once.</li>
                <li>A thing that answers 404 is gone. A 410 means the data came from a backup: begin again.</li>
                <li>
                  Recency runs out with the days and not with a change: read people again each day. A finding weighs
                  what is seen of other pilots, and may shift with it.
                </li>
              </ol>
            </Panel>
          </div>
          <div className="grid mt-3">
            <Panel title="What a token may be given">
              <dl className="mb-0">
                {SCOPES.map((s) => (
                  <div key={s}>
                    <dt className="d-inline code-face me-2">{s}</dt>
                    <dd className="d-inline">{SCOPE_NAME[s]}</dd>
                  </div>
                ))}
              </dl>
            </Panel>
            {ADDRESSES.map((a) => (
              <AddressPanel
                key={`${a.method} ${a.path}`}
                origin={origin}
                address={{
                  method: a.method,
                  path: a.path,
                  scope: a.scope,
                  summary: a.summary,
                  names: namesIn(a.path).map((name) => ({ name, example: a.of ? (newest[a.of] ?? '') : '' })),
                  query: a.query ? fieldsOf(a.query, 'input') : [],
                  fields: fieldsOf(a.answer),
                  refuses: a.refuses ?? {},
                }}
              />
            ))}
          </div>
        </div>
      </main>
    </>
  );
}
