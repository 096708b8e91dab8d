import { LAB_PAGES, LAB_TITLES } from '@/domain/lab-pages';
import { NextResponse } from 'next/server';
import { list } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/floor/auth/permissions';
import { door } from '@/server/door/route';
import { findable } from '@/server/checkout/queries/lists';
import { hangar } from '@/server/hangar/queries/hangar';

/** Everything the finder knows, for this user: screens, things to do, people, checkouts, types and registrations. */
export const GET = door({ who: 'signed-in' }, async ({ user }) => {
  const staff = may.seeEverybody(user);
  const page = (title: string, line: string, href: string) => ({ title, line, href });
  const pages = [
    page('Board', 'your to-do', '/board'),
    page('Checkouts', 'all of them', '/checkouts'),
    page('Hangar', 'type sheets', '/hangar'),
    page('Schedule', 'the week', '/schedule'),
    page('Schedule: today', 'by instructor', '/schedule?whose=by-instructor'),
    page('Ledger', 'the sign-off ledger', '/ledger'),
    page('Lab', 'models', '/lab'),
    page('Lab: picture over the nose', 'sight picture', '/lab/sight-picture'),
    page('Lab: pace and reach', 'circuit', '/lab/circuit'),
    ...LAB_PAGES.map((p) => page(`Lab: ${LAB_TITLES[p].toLowerCase()}`, 'model', `/lab/${p}`)),
    page('Lab: taxi and the tail', 'ground', '/lab/ground?part=corner'),
    page('Account', 'your flying', '/account'),
    page('Settings', 'theme, calendar, aerodrome, house', '/settings'),
    page('Personal tokens', 'what another program may read', '/account#tokens'),
    page('Interface for programs', 'addresses, examples', '/account/interface'),
    page('Notices', 'what others changed', '/notices'),
    page('Verify', 'a code or a file', '/verify'),
    page('Guide', 'stage by stage', '/help'),
    page('Glossary', 'what the words mean', '/help/glossary'),
    ...(staff
      ? [
          page('People', 'who is current', '/people'),
          page('People: expiring in 30 days', 'recency', '/people?show=soon'),
          page('Rules and programmes', 'packs, programmes, standards, house', '/rules'),
          page('Recordings', 'traces', '/traces'),
        ]
      : []),
    ...(may.compareInstructors(user)
      ? [page('Instructor standardisation', 'instructors side by side', '/people/standard')]
      : []),
  ];
  const actions = [
    page('Book a lesson', 'do', '/schedule?kind=lesson'),
    page('Book own practice', 'do', '/schedule?kind=currency'),
    page('Availability', 'away, maintenance', '/schedule/times'),
    ...(user.pilotId
      ? [
          page('Log a flight', 'do', '/account'),
          page('Import my logbook', 'do', `/people/${user.pilotId}/import`),
          page('My page', 'currency and validity', `/people/${user.pilotId}`),
        ]
      : []),
    ...(may.openCheckouts(user)
      ? [page('New checkout', 'do', '/checkouts/new'), page('Add a recording', 'do', '/traces/new')]
      : []),
    ...(may.changeHouse(user) ? [page('New type', 'do', '/hangar/new')] : []),
    ...(may.keepPeople(user)
      ? [page('New person', 'do', '/people/new'), page('People from a file', 'do', '/people/import')]
      : []),
  ];
  const found = await findable(user);
  const people = found.people.map((p) => page(p.name, p.roles.length > 0 ? list(p.roles) : 'pilot', `/people/${p.id}`));
  const checkouts = found.checkouts.map((c) =>
    page(c.pilotName, `${c.registration} · ${list(c.goals.map(say))} · ${c.status}`, `/checkouts/${c.id}`),
  );
  const sheets = await hangar();
  const types = sheets.map((t) =>
    page(t.sheet.name, t.airframes.map((a) => a.registration).join(', '), `/hangar/${t.code}`),
  );
  const frames = sheets.flatMap((t) =>
    t.airframes.map((a) =>
      page(a.registration, `${t.sheet.name}, this airframe`, `/hangar/${t.code}#${a.registration}`),
    ),
  );
  return NextResponse.json([...pages, ...checkouts, ...people, ...types, ...frames, ...actions]);
});
