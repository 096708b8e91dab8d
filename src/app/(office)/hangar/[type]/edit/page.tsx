import type { Metadata } from 'next';
import { formNode } from '@/domain/form';
import { TypeSheet } from '@/domain/sheet';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { hangar } from '@/server/hangar/queries/hangar';
import { SheetEditor } from '@/ui/hangar/editor';
import { PageStrip } from '@/ui/shared/strip';
import { saveTypeSheetAction } from '../../../../actions';

export const metadata: Metadata = { title: 'Edit type sheet' };

export default async function EditTypePage({ params }: { params: Promise<{ type: string }> }) {
  const user = await requireUser();
  const code = (await params).type;
  const type = (await hangar()).find((t) => t.code === code);
  denyUnless(type !== undefined && may.changeHouse(user));
  async function save(form: { reason: string; value: unknown; baseVersion: number }) {
    'use server';
    return saveTypeSheetAction({ code, baseVersion: form.baseVersion, reason: form.reason, sheet: form.value });
  }
  return (
    <>
      <PageStrip name={type.sheet.name} line={`editing from version ${type.version}`} user={user.name} />
      <main id="main">
        <div className="column">
          <SheetEditor
            kind="type"
            title={`Edit ${type.sheet.name}`}
            node={formNode(TypeSheet)}
            value={type.sheet}
            version={type.version}
            dialUnit={type.sheet.dial.unit}
            type={null}
            save={save}
            back={`/hangar/${code}`}
          />
        </div>
      </main>
    </>
  );
}
