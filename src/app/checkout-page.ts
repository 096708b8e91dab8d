import type { Metadata } from 'next';
import { ageText, localTime, windText, zoneText } from '@/core/format';
import { weatherNow } from '@/server/weather/weather';
import { aerodromeAt } from '@/server/rules/content';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { currentUser, denyUnless, requireUser } from '@/server/floor/auth/session';
import { nowIso } from '@/server/floor/clock';
import { type CheckoutRecord, checkoutRecord } from '@/server/checkout/queries/record';
import { stageOf } from '@/server/checkout/queries/stage';
import { checkoutHead } from '@/server/checkout/queries/head';
import { nextAerodrome } from '@/server/checkout/queries/where';
import { bookingNow } from '@/server/schedule/queries/bookings';
import type { StripFacts } from '@/ui/shared/strip';

/**
 * The title of a page of a checkout: whose it is and on what, so that tabs and the history tell them apart. Who may not
 * see it is told the stage alone.
 */
export const titled =
  (name: string) =>
  async ({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> => {
    const user = await currentUser();
    const head = user ? await checkoutHead((await params).id) : null;
    if (!user || !head || !may.viewCheckout(user, head)) return { title: name };
    return { title: `${name}: ${head.pilotName}, ${head.registration}` };
  };

/** What every page of a checkout starts with: the user, the record, and the facts of the flight strip. */
export async function checkoutPage(
  params: Promise<{ id: string }>,
): Promise<{ user: CurrentUser; record: CheckoutRecord; strip: StripFacts; runs: boolean }> {
  const user = await requireUser();
  const head = await checkoutHead((await params).id);
  denyUnless(head !== null && may.viewCheckout(user, head));
  const record = await checkoutRecord(head);
  const latest = record.sorties[record.sorties.length - 1];
  const now = nowIso();
  const running = await bookingNow(head.id, now);
  const at = await nextAerodrome(record, now);
  const home = await aerodromeAt(null);
  const { report, source } = await weatherNow(at);
  const wind = report?.wind ?? null;
  const oldMin = wind ? (Date.parse(now) - Date.parse(wind.observedAt)) / 60_000 : 0;
  return {
    user,
    record,
    runs: may.runCheckout(user, head),
    strip: {
      checkoutId: head.id,
      pilotName: head.pilotName,
      registration: head.registration,
      typeName: head.typeName,
      goals: head.goals,
      stage: stageOf(record),
      lesson: latest?.lesson ?? 0,
      signed: head.status === 'signed',
      leftMin: running ? Math.max(0, Math.floor((Date.parse(running.endsAt) - Date.parse(now)) / 60_000)) : null,
      wind: wind
        ? {
            text: windText(wind),
            // The strip says the zone for every time below it.
            age: `${at.ident === home.ident ? '' : `${at.name}, `}${source === 'simulated' ? 'simulated, true' : 'station, true'} · ${localTime(wind.observedAt, at.timeZone)} ${zoneText(now, at.timeZone)}${oldMin > 20 ? `, ${ageText(oldMin)} old` : ''}`,
          }
        : null,
    },
  };
}
