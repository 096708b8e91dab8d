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
import { LAB_TITLES, type LabPage } from '@/domain/lab-pages';
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
    ['ground', `/lab/ground?checkout=${checkoutId}`, LAB_TITLES.ground, Spline],
    ['take-off', `/lab/take-off?checkout=${checkoutId}`, LAB_TITLES['take-off'], PlaneTakeoff],
    ['taxi', `/lab/ground?part=corner&checkout=${checkoutId}`, 'Taxi and the tail', Footprints],
    ['touch', `/lab/touch?checkout=${checkoutId}`, LAB_TITLES.touch, ArrowDownToLine],
    ['crosswind', `/lab/crosswind?checkout=${checkoutId}`, LAB_TITLES.crosswind, Wind],
    ['side-picture', `/lab/side-picture?checkout=${checkoutId}`, LAB_TITLES['side-picture'], PanelLeft],
    ['slip', `/lab/slip?checkout=${checkoutId}`, LAB_TITLES.slip, ChevronsDown],
    ['slow-approach', `/lab/slow-approach?checkout=${checkoutId}`, LAB_TITLES['slow-approach'], Snail],
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
