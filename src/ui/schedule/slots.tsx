import Button from 'react-bootstrap/Button';
import { clockText, dayText, fitWords, localClock } from '@/core/schedule';
import { Verdict } from '../shared/verdict';
import type { ProposalsAnswer } from './form-facts';

export interface Span {
  from: string;
  to: string;
}
/** Day, start and end by the clock of the aerodrome. */
export const spanText = (s: Span, zone: string): string =>
  `${dayText(localClock(s.from, zone).date)} ${clockText(s.from, zone)} to ${clockText(s.to, zone)}`;

const FIT: Record<string, 'within' | 'edge' | 'outside' | 'not-seen'> = {
  wanted: 'within',
  fits: 'within',
  light: 'edge',
  'too-much': 'outside',
  unknown: 'not-seen',
};

/** Where the minutes of a proposed slot go, and of how many free starts the best are. */
function slotsText({ minutes, split, free }: ProposalsAnswer): string {
  const from =
    split.lessons > 0
      ? `medians of ${split.lessons} ${split.lessons === 1 ? 'lesson' : 'lessons'} in the type`
      : 'the school\u2019s usual';
  const ground = `brief ${split.brief}, prepare ${split.prepare}, debrief ${split.debrief}`;
  return `${minutes} min: ${ground}, the rest in the air (${from}). Best of ${free} free starts in seven days:`;
}

/** The best starts by the wind and what the lesson needs of it, each booked with one tap. */
export function Slots({ slots, zone, book }: { slots: ProposalsAnswer; zone: string; book: (from: string) => void }) {
  return (
    <div role="status">
      <p className="small soft mb-1">
        {slots.best.length === 0
          ? `No free start in seven days for ${slots.minutes} min. Try another day, aeroplane or instructor, or the waiting list.`
          : slotsText(slots)}
      </p>
      <ol className="slots">
        {slots.best.map((s) => (
          <li key={s.from}>
            <div>
              <b>{spanText(s, zone)}</b>
              <br />
              <span className="small">
                <Verdict verdict={FIT[s.fit.word] ?? 'not-seen'}>{fitWords(s.fit.said)}</Verdict>
              </span>
            </div>
            <Button
              variant="outline-primary"
              size="sm"
              onClick={() => book(s.from)}
              aria-label={`Book ${spanText(s, zone)}`}
            >
              Book it
            </Button>
          </li>
        ))}
      </ol>
    </div>
  );
}
