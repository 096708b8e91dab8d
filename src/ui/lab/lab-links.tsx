import { Eye, Footprints, Repeat, Route } from 'lucide-react';
import { Link } from '../shared/link';

/** What looks and feels different, one tap away from a checkout and filled in from it. */
export function LabLinks({ checkoutId, but }: { checkoutId: string; but?: 'habits' | 'picture' | 'circuit' | 'taxi' }) {
  const links = [
    ['habits', `/checkouts/${checkoutId}/differences`, 'Habits to drop', Repeat],
    ['picture', `/lab/sight-picture?checkout=${checkoutId}`, 'Picture over the nose', Eye],
    ['circuit', `/lab/circuit?checkout=${checkoutId}`, 'Pace of the circuit, reach', Route],
    ['taxi', `/lab/ground?checkout=${checkoutId}`, 'Taxi and the tail', Footprints],
  ] as const;
  return (
    <ul className="lab-links">
      {links
        .filter(([key]) => key !== but)
        .map(([key, href, name, Icon]) => (
          <li key={key}>
            <Link href={href}>
              <Icon size={20} aria-hidden /> {name}
            </Link>
          </li>
        ))}
    </ul>
  );
}
