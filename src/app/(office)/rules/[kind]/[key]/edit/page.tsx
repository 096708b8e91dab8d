import type { Metadata } from 'next';
import { formNode } from '@/domain/form';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { isContentKind } from '@/server/rules/commands/content';
import { CONTENT } from '@/server/rules/content';
import { contentVersions } from '@/server/rules/queries/content';
import { SheetEditor } from '@/ui/hangar/editor';
import { PageStrip } from '@/ui/shared/strip';
import { saveContentAction } from '../../../../../actions';

export const metadata: Metadata = { title: 'Edit rules' };

export default async function EditRulePage({ params }: { params: Promise<{ kind: string; key: string }> }) {
  const user = await requireUser();
  const { kind, key } = await params;
  denyUnless(may.changeHouse(user) && isContentKind(kind));
  const inForce = (await contentVersions(kind, key)).find((v) => v.origin !== 'proposed');
  denyUnless(inForce !== undefined);
  async function save(form: { reason: string; value: unknown; baseVersion: number }) {
    'use server';
    return saveContentAction({ kind, key, baseVersion: form.baseVersion, reason: form.reason, body: form.value });
  }
  return (
    <>
      <PageStrip name="Rules" line={`editing ${key} from version ${inForce.version}`} user={user.name} />
      <main id="main">
        <div className="column">
          <SheetEditor
            kind="content"
            title={`Edit ${(inForce.body as { name?: string }).name ?? key}`}
            node={formNode(CONTENT[kind])}
            value={inForce.body}
            version={inForce.version}
            dialUnit="kt"
            type={null}
            save={save}
            back={`/rules/${kind}/${key}`}
            {...(kind === 'aerodrome' ? { drawn: 'aerodrome' as const } : {})}
          />
        </div>
      </main>
    </>
  );
}
