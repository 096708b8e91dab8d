import type { Metadata } from 'next';
import { formNode } from '@/domain/form';
import { Airframe } from '@/domain/sheet';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { hangar } from '@/server/hangar/queries/hangar';
import { SheetEditor } from '@/ui/hangar/editor';
import { PageStrip } from '@/ui/shared/strip';
import { saveAirframeAction } from '../../../../../actions';

export const metadata: Metadata = { title: 'Edit airframe' };

export default async function EditAirframePage({
  params,
}: {
  params: Promise<{ type: string; registration: string }>;
}) {
  const user = await requireUser();
  const { type: code, registration } = await params;
  const type = (await hangar()).find((t) => t.code === code);
  const frame = type?.airframes.find((a) => a.registration === registration);
  denyUnless(type !== undefined && frame !== undefined && may.changeHouse(user));
  async function save(form: { reason: string; value: unknown; baseVersion: number }) {
    'use server';
    return saveAirframeAction({
      registration,
      baseVersion: form.baseVersion,
      reason: form.reason,
      airframe: form.value,
    });
  }
  return (
    <>
      <PageStrip name={registration} line={`editing from version ${frame.version}`} user={user.name} />
      <main id="main">
        <div className="column">
          <SheetEditor
            kind="airframe"
            title={`Edit ${registration}`}
            node={formNode(Airframe)}
            value={frame.airframe}
            version={frame.version}
            dialUnit={type.sheet.dial.unit}
            type={type.sheet}
            save={save}
            back={`/hangar/${code}`}
          />
        </div>
      </main>
    </>
  );
}
