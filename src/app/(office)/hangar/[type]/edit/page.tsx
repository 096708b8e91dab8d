import type { Metadata } from 'next';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { typeDraft } from '@/server/hangar/queries/drafts';
import { hangar } from '@/server/hangar/queries/hangar';
import { TYPE_NODE } from '@/server/hangar/samples';
import { TypeEditor } from '@/ui/hangar/type-editor';
import { PageStrip } from '@/ui/shared/strip';
import {
  discardTypeDraftAction,
  keepTypeDraftAction,
  rebaseTypeDraftAction,
  saveTypeDraftAction,
} from '../../../../actions';

export const metadata: Metadata = { title: 'Edit type sheet' };

/** A type that is there, by its code; one that is being entered, by its draft. */
export default async function EditTypePage({ params }: { params: Promise<{ type: string }> }) {
  const user = await requireUser();
  const key = (await params).type;
  const type = (await hangar()).find((t) => t.code === key);
  const draft = await typeDraft(key);
  denyUnless((type !== undefined || draft !== null) && may.changeHouse(user));
  const name = type?.sheet.name ?? '';
  return (
    <>
      <PageStrip
        name={type ? name : 'New type'}
        line={type ? `editing from version ${type.version}` : 'not in the hangar yet'}
        user={user.name}
      />
      <main id="main">
        <div className="column">
          <TypeEditor
            me={user.id}
            title={type ? `Edit ${name}` : 'New type'}
            draftKey={key}
            code={type?.code ?? null}
            origin={draft?.origin ?? `from version ${type?.version ?? 0}`}
            baseVersion={draft?.baseVersion ?? type?.version ?? 0}
            newestVersion={type?.version ?? 0}
            start={draft?.start ?? type?.sheet}
            sheet={draft?.sheet ?? type?.sheet}
            seq={draft?.seq ?? 0}
            drafted={draft !== null}
            node={TYPE_NODE}
            back={type ? `/hangar/${key}` : '/hangar'}
            keep={keepTypeDraftAction}
            save={saveTypeDraftAction}
            rebase={rebaseTypeDraftAction}
            discard={discardTypeDraftAction}
          />
        </div>
      </main>
    </>
  );
}
