import {
  ArrowDownToLine,
  ChevronsDown,
  Eye,
  Footprints,
  PanelLeft,
  PlaneTakeoff,
  Repeat,
  Route,
  Snail,
  Spline,
  Wind,
} from 'lucide-react';
import type { LabPage } from '@/domain/lab-pages';
import { Link } from '../shared/link';

/** What looks and feels different, one tap away from a checkout and filled in from it. */
export function LabLinks({
  checkoutId,
  but,
}: {
  checkoutId: string;
  but?: 'habits' | 'picture' | 'circuit' | 'taxi' | LabPage;
}) {
  const links = [
    ['habits', `/checkouts/${checkoutId}/differences`, 'Habits to drop', Repeat],
    ['picture', `/lab/sight-picture?checkout=${checkoutId}`, 'Picture over the nose', Eye],
    ['circuit', `/lab/circuit?checkout=${checkoutId}`, 'Pace of the circuit, reach', Route],
    ['ground', `/lab/ground?checkout=${checkoutId}`, 'Straight or swerving', Spline],
    ['take-off', `/lab/take-off?checkout=${checkoutId}`, 'Take-off roll', PlaneTakeoff],
    ['taxi', `/lab/ground?part=corner&checkout=${checkoutId}`, 'Taxi and the tail', Footprints],
    ['touch', `/lab/touch?checkout=${checkoutId}`, 'The touch', ArrowDownToLine],
    ['crosswind', `/lab/crosswind?checkout=${checkoutId}`, 'Crosswind', Wind],
    ['side-picture', `/lab/side-picture?checkout=${checkoutId}`, 'Side picture', PanelLeft],
    ['slip', `/lab/slip?checkout=${checkoutId}`, 'Slip', ChevronsDown],
    ['slow-approach', `/lab/slow-approach?checkout=${checkoutId}`, 'Slow approach', Snail],
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
