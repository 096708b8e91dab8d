import type { Metadata } from 'next';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { hangar } from '@/server/hangar/queries/hangar';
import { AddType } from '@/ui/hangar/add-type';
import { StartType } from '@/ui/hangar/start-type';
import { Panel } from '@/ui/shared/parts';
import { PageStrip } from '@/ui/shared/strip';
import { Title } from '@/ui/shared/title';
import { saveTypeSheetAction, startTypeDraftAction } from '../../../actions';

export const metadata: Metadata = { title: 'New type' };

export default async function NewTypePage() {
  const user = await requireUser();
  denyUnless(may.changeHouse(user));
  const types = await hangar();
  return (
    <>
      <PageStrip name="New type" line="not in the hangar yet" user={user.name} />
      <main id="main">
        <div className="column">
          <Title
            title="New type"
            line="Have the flight manual open: the steps follow it. What is entered is kept at once, and another computer can go on with it."
          />
          <div className="grid g-2-1" style={{ alignItems: 'start' }}>
            <StartType types={types.map((t) => ({ code: t.code, name: t.sheet.name }))} start={startTypeDraftAction} />
            <Panel title="From a file">
              <AddType save={saveTypeSheetAction} />
            </Panel>
          </div>
        </div>
      </main>
    </>
  );
}
