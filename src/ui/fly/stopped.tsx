import { itemStops, landingStops, stopWords } from '@/core/assess';
import { type Folded, type SortiePack, gearAt } from '@/offline/protocol';
import { STOP_TITLE, type Stop } from '@/domain/stops';

/**
 * What the screen says stop to: of the flight as it was taken along, and of what was saved last. Said at the tap; the
 * record is kept, and the reason is asked for on the ground.
 */
export function Stopped({ pack, folded }: { pack: SortiePack; folded: Folded }) {
  if (!pack.stops) return null;
  const { flight, rules } = pack.stops;
  const landing = folded.landings.at(-1);
  const item = folded.items.at(-1);
  const lastIsItem = item !== undefined && (landing === undefined || item.at > landing.savedAt);
  const at = landing ? (landing.landing.endedAt ?? landing.savedAt) : '';
  const last: Stop[] = lastIsItem
    ? itemStops(item.data.detail, rules)
    : landing
      ? landingStops(landing.landing, at, rules, gearAt(folded.gearLog, landing.sortieId, Date.parse(at), landing.id))
      : [];
  if (flight.length === 0 && last.length === 0) return null;
  const name = lastIsItem ? 'The last item' : `Landing ${landing?.number ?? ''}`;
  return (
    <div className="stopped" role="status">
      {flight.map((s) => (
        <p key={s.code} className="mb-0">
          <strong>{STOP_TITLE[s.code]}.</strong> {stopWords(s)}.
        </p>
      ))}
      {last.map((s) => (
        <p key={s.code + stopWords(s)} className="mb-0">
          <strong>{name}, recorded as flown past a stop:</strong> {stopWords(s)}. The reason is asked for on the ground.
        </p>
      ))}
    </div>
  );
}
