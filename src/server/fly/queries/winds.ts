import { convertReference } from '@/core/wind';
import type { WindSeen } from '@/domain/brief';
import type { ReadyWind } from '@/offline/protocol';
import { checkoutHead } from '../../checkout/queries/head';
import { checkoutRecord } from '../../checkout/queries/record';
import { Sorties } from '../../checkout/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { aerodromeAt } from '../../rules/content';
import { weatherNow } from '../../weather/weather';

/** A wind of a brief or a report as the cockpit logs it; none where it names no direction. */
function ready(
  wind: Pick<WindSeen, 'reference' | 'variable' | 'fromDeg' | 'kt' | 'gustKt' | 'observedAt'> | null,
  source: ReadyWind['source'],
  variationDeg: number,
): ReadyWind[] {
  if (!wind || wind.variable || wind.fromDeg === null) return [];
  const magnetic = convertReference(wind.fromDeg, wind.reference, 'magnetic', variationDeg);
  return [
    {
      fromDegMag: Math.round(magnetic),
      kt: wind.kt,
      gustKt: wind.gustKt,
      at: new Date(wind.observedAt).toISOString(),
      source,
    },
  ];
}

/** The winds a device may confirm: the station's report of now, then what was briefed where it is another. */
export async function windsReady(aerodrome: string | null, briefed: WindSeen | null): Promise<ReadyWind[]> {
  const place = await aerodromeAt(aerodrome);
  const { report, source } = await weatherNow(place);
  const station = ready(report?.wind ?? null, 'station', place.variationDeg).map((w) =>
    source === 'simulated' ? { ...w, simulated: true } : w,
  );
  const brief = ready(briefed, 'brief', place.variationDeg);
  return [...station, ...brief.filter((b) => !station.some((s) => s.at === b.at))];
}

/** The same for one flight, asked again while it is flown; null when it is not this user's to record. */
export async function windsOf(user: CurrentUser, sortieId: string): Promise<ReadyWind[] | null> {
  const where = await Sorties.first({ where: { id: sortieId }, pick: ['checkoutId'] });
  const head = where && (await checkoutHead(where.checkoutId));
  if (!head || !may.runCheckout(user, head)) return null;
  const sortie = (await checkoutRecord(head)).sorties.find((s) => s.id === sortieId);
  return sortie?.brief ? windsReady(sortie.aerodrome, sortie.brief.choices.wind) : null;
}
