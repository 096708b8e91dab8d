'use client';
import {
  AudioWaveform,
  Bell,
  BookOpen,
  CalendarDays,
  ClipboardList,
  Ellipsis,
  FlaskConical,
  House,
  IdCard,
  LayoutDashboard,
  LogOut,
  Search,
  SlidersHorizontal,
  UsersRound,
  Warehouse,
} from 'lucide-react';
import type { LucideIcon } from 'lucide-react';
import { Link } from './link';
import { usePathname } from 'next/navigation';
import { openPalette } from './events';
import { useOpen } from './use-open';

interface Place {
  href: string;
  name: string;
  icon: LucideIcon;
}
const STAFF_PLACES: readonly Place[] = [
  { href: '/board', name: 'Board', icon: LayoutDashboard },
  { href: '/checkouts', name: 'Checkouts', icon: ClipboardList },
  { href: '/hangar', name: 'Hangar', icon: Warehouse },
  { href: '/people', name: 'People', icon: UsersRound },
  { href: '/schedule', name: 'Schedule', icon: CalendarDays },
  { href: '/lab', name: 'Lab', icon: FlaskConical },
  { href: '/traces', name: 'Recordings', icon: AudioWaveform },
  { href: '/ledger', name: 'Ledger', icon: BookOpen },
];
/** A pilot’s own things first. */
const pilotPlaces = (record: string | null): readonly Place[] => [
  { href: '/board', name: 'Home', icon: House },
  { href: '/checkouts', name: 'Checkouts', icon: ClipboardList },
  { href: '/schedule', name: 'Schedule', icon: CalendarDays },
  ...(record === null ? [] : [{ href: record, name: 'Record', icon: IdCard }]),
  { href: '/lab', name: 'Lab', icon: FlaskConical },
  { href: '/hangar', name: 'Hangar', icon: Warehouse },
  { href: '/traces', name: 'Recordings', icon: AudioWaveform },
  { href: '/ledger', name: 'Ledger', icon: BookOpen },
];
/** On a phone the first so many stand in the bar; the others are behind *More*. */
const IN_BAR = 5;

export function Rail({
  staff,
  record,
  notices,
  signOut,
}: {
  staff: boolean;
  /** The page of one’s own record; null = there is none. */
  record: string | null;
  /** Not seen yet. */
  notices: number;
  signOut: () => Promise<void>;
}) {
  const path = usePathname();
  const [more, setMore] = useOpen();
  const places = staff ? STAFF_PLACES : pilotPlaces(record);
  const here = (href: string) => (path.startsWith(href) ? ('page' as const) : undefined);
  const elsewhere = !places.slice(0, IN_BAR).some((p) => path.startsWith(p.href));
  const place = ({ href, name, icon: Icon }: Place, className: string) => (
    <Link key={href} href={href} aria-current={here(href)} className={className}>
      <Icon size={22} aria-hidden />
      {name}
    </Link>
  );
  return (
    <nav className="rail" aria-label="Main" data-more={more}>
      {places.slice(0, IN_BAR).map((p) => place(p, ''))}
      <button
        type="button"
        className="railbtn more"
        aria-expanded={more}
        aria-current={elsewhere ? 'true' : undefined}
        onClick={() => setMore(!more)}
      >
        <span className="position-relative">
          <Ellipsis size={22} aria-hidden />
          {notices > 0 ? (
            <span className="badge-n position-absolute top-0 start-100 translate-middle" aria-hidden>
              {notices}
            </span>
          ) : null}
        </span>
        More
      </button>
      {places.slice(IN_BAR).map((p) => place(p, 'rest'))}
      <span className="grow" />
      <Link href="/notices" aria-current={here('/notices')} className="rest">
        <span className="position-relative">
          <Bell size={20} aria-hidden />
          {notices > 0 ? (
            <span className="badge-n position-absolute top-0 start-100 translate-middle">
              {notices}
              <span className="visually-hidden"> new</span>
            </span>
          ) : null}
        </span>
        Notices
      </Link>
      <Link href="/settings" aria-current={here('/settings')} className="rest">
        <SlidersHorizontal size={20} aria-hidden />
        Settings
      </Link>
      <button type="button" className="railbtn rest" onClick={openPalette}>
        <Search size={20} aria-hidden />
        Find
      </button>
      {/* What was typed and not sent is its writer’s: the next one at this screen does not find it. */}
      <form action={signOut} onSubmit={() => sessionStorage.clear()} className="rest">
        <button type="submit" className="railbtn">
          <LogOut size={20} aria-hidden />
          Sign out
        </button>
      </form>
    </nav>
  );
}
