'use client';
import {
  Bell,
  BookOpen,
  CalendarDays,
  ClipboardList,
  FlaskConical,
  LayoutDashboard,
  LogOut,
  Search,
  SlidersHorizontal,
  UsersRound,
  Warehouse,
} from 'lucide-react';
import { Link } from './link';
import { usePathname } from 'next/navigation';
import { openPalette } from './events';

const PLACES = [
  { href: '/board', name: 'Board', icon: LayoutDashboard, staff: false },
  { href: '/checkouts', name: 'Checkouts', icon: ClipboardList, staff: false },
  { href: '/hangar', name: 'Hangar', icon: Warehouse, staff: false },
  { href: '/people', name: 'People', icon: UsersRound, staff: true },
  { href: '/schedule', name: 'Schedule', icon: CalendarDays, staff: false },
  { href: '/lab', name: 'Lab', icon: FlaskConical, staff: false },
  { href: '/ledger', name: 'Ledger', icon: BookOpen, staff: false },
] as const;

export function Rail({
  staff,
  notices,
  signOut,
}: {
  staff: boolean;
  /** Not seen yet. */
  notices: number;
  signOut: () => Promise<void>;
}) {
  const path = usePathname();
  return (
    <nav className="rail" aria-label="Main">
      {PLACES.filter((p) => staff || !p.staff).map(({ href, name, icon: Icon }) => (
        <Link key={href} href={href} aria-current={path.startsWith(href) ? 'page' : undefined}>
          <Icon size={22} aria-hidden />
          {name}
        </Link>
      ))}
      <span className="grow" />
      <Link href="/notices" aria-current={path.startsWith('/notices') ? 'page' : undefined}>
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
      <Link href="/settings" aria-current={path.startsWith('/settings') ? 'page' : undefined}>
        <SlidersHorizontal size={20} aria-hidden />
        Settings
      </Link>
      <button type="button" className="railbtn" onClick={openPalette}>
        <Search size={20} aria-hidden />
        Find
      </button>
      {/* What was typed and not sent is its writer’s: the next one at this screen does not find it. */}
      <form action={signOut} onSubmit={() => sessionStorage.clear()}>
        <button type="submit" className="railbtn">
          <LogOut size={20} aria-hidden />
          Sign out
        </button>
      </form>
    </nav>
  );
}
