import type { Metadata } from 'next';
import { list } from '@/core/format';
import { requireUser } from '@/server/auth/session';
import { tokensOf } from '@/server/api/tokens';
import { Panel, Title } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';
import { ThemePicker } from '@/ui/shared/theme';
import { Tokens } from '@/ui/shared/tokens';
import { createTokenAction, endTokenAction } from '../../actions';

export const metadata: Metadata = { title: 'Account' };

export default async function AccountPage() {
  const user = await requireUser();
  return (
    <>
      <PageStrip name="Account" line={user.email} user={user.name} />
      <main id="main"><div className="column">
        <Title title={user.name} line={`${list(user.roles)}, ${user.email}`} />
        <div className="grid g-3-2">
          <Panel title="Personal tokens">
            <p>Another program reads Jeito with a token, as you and with your rights. What it can read is described in <a href="/api/v1/openapi.json">the interface document</a>.</p>
            <Tokens tokens={await tokensOf(user)} create={createTokenAction} end={endTokenAction} />
          </Panel>
          <Panel title="Theme"><ThemePicker /></Panel>
        </div>
      </div></main>
    </>
  );
}
