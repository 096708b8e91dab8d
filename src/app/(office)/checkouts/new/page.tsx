import type { Metadata } from 'next';
import { sheetFacts } from '@/core/plan';
import { unconfirmed } from '@/core/sheet';
import { localToday } from '@/server/rules/today';
import type { Need } from '@/domain/assess-words';
import { denyUnless, requireUser } from '@/server/floor/auth/session';
import { may } from '@/server/floor/auth/permissions';
import { newestContent } from '@/server/rules/content';
import { hangar } from '@/server/hangar/queries/hangar';
import { pilotList } from '@/server/checkout/queries/lists';
import { OpenForm } from '@/ui/open/open-form';
import { PageStrip } from '@/ui/shared/strip';
import { openCheckoutAction, openElsewhereAction } from '../../../actions';
import * as ask from '@/server/floor/statements/app';

export const metadata: Metadata = { title: 'New checkout' };

export default async function NewCheckoutPage() {
  const user = await requireUser();
  denyUnless(may.openCheckouts(user));
  const [pilots, types, us, eu, au, standards, programmes] = await Promise.all([
    pilotList(),
    hangar(),
    newestContent('pack', 'us'),
    newestContent('pack', 'eu'),
    newestContent('pack', 'au'),
    ask.standards.all(),
    ask.programmesOffered.all(),
  ]);
  return (
    <>
      <PageStrip name="Open" line="a new checkout" user={user.name} />
      <main id="main">
        <div className="column">
          <OpenForm
            action={openCheckoutAction}
            elsewhere={openElsewhereAction}
            pilots={pilots
              .filter((p) => p.id !== user.pilotId)
              .map((p) => ({ ...p, holds: p.holds.map((h) => ({ ...h, note: '' })) }))}
            airframes={types.flatMap((t) =>
              t.airframes.map((a) => ({
                id: a.id,
                registration: a.registration,
                typeCode: t.sheet.code,
                typeName: t.sheet.name,
                summary: t.sheet.summary,
                facts: sheetFacts(a.effective),
                samples: unconfirmed(a.effective).length + unconfirmed(a.airframe).length,
                modifications: a.airframe.modifications.map((m) => m.name),
              })),
            )}
            today={await localToday()}
            packs={[us, eu, au].flatMap((p) => (p ? [p.body] : []))}
            standards={standards}
            programmes={programmes.map((p) => ({
              key: p.key,
              offered: p.offered === null ? [] : (JSON.parse(p.offered) as Need[][]),
              needs: JSON.parse(p.needs) as Need[][],
            }))}
          />
        </div>
      </main>
    </>
  );
}
