import { changeWords } from '@/core/approach';
import { list, plural, withUnit } from '@/core/format';
import { say } from '@/domain/words';
import type { BoardData } from '@/server/board/queries/board';
import type { BriefAtAGlance, PilotLessons, PilotTask } from '@/server/board/queries/pilot-home';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { readyWords } from '@/server/schedule/ready-words';
import { Wheel } from '@/ui/board/wheel';
import { LapseMark } from '@/ui/people/lapse';
import { LabLinks } from '@/ui/lab/lab-links';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { Verdict } from '@/ui/shared/verdict';

const first = (name: string): string => name.split(' ')[0] ?? name;
const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
const sentence = (parts: readonly string[]): string => {
  const text = list(parts);
  return text === '' ? '' : `${capital(text)}.`;
};

/** What a pilot opens on a phone: the next booking, the one thing to do, how to prepare, how it stands. */
export function PilotHome({ b, lessons, user }: { b: BoardData; lessons: PilotLessons[]; user: CurrentUser }) {
  return (
    <>
      <NextHeading b={b} lessons={lessons} />
      <div className="grid">
        {lessons.map((c) => (
          <div key={c.id} className="grid" role="group" aria-label={`${c.registration}, ${list(c.goals.map(say))}`}>
            {lessons.length > 1 ? (
              <h2 className="mb-0 mt-2">
                <span className="code-face">{c.registration}</span> {list(c.goals.map(say))}
              </h2>
            ) : null}
            <Tasks c={c} />
            <div className="grid g-1-1" style={{ alignItems: 'start' }}>
              <Prepare c={c} />
              <Progress c={c} />
              <Work c={c} />
            </div>
          </div>
        ))}
        {lessons.length === 0 ? (
          <Panel title="No checkout is open">
            <p className="mb-0">When an instructor opens one for you, its briefs, debriefs and progress are here.</p>
          </Panel>
        ) : null}
        {b.line.length > 1 ? <Bookings b={b} /> : null}
        {b.lapses.length > 0 ? <Expiring b={b} /> : null}
        <Record user={user} />
      </div>
    </>
  );
}

function NextHeading({ b, lessons }: { b: BoardData; lessons: PilotLessons[] }) {
  const next = b.next?.booking;
  if (!b.next || !next)
    return (
      <Title title="Nothing is booked" line="Ask your instructor, or look for a slot when everybody is free.">
        <Link className="btn btn-outline-primary" href="/schedule?kind=lesson">
          Book
        </Link>
      </Title>
    );
  const lesson = lessons.find((c) => c.id === next.checkoutId);
  // The brief is the task below; of the rest what is not ready, and the wind always.
  const ready = b.next.ready.filter((r) => r.key === 'wind' || (r.verdict !== 'within' && r.key !== 'brief'));
  const number = lesson?.tasks.find((t) => t.kind === 'brief')?.lesson ?? lesson?.ready?.lesson;
  return (
    <Title
      title={`${capital(b.next.when)}${next.instructorName ? ` with ${first(next.instructorName)}` : ''}`}
      line={
        <>
          <span className="code-face">{next.registration}</span>
          {next.goals.length > 0 ? `, ${list(next.goals.map(say))}` : ''}
          {number ? `, lesson ${number}` : ''}
          {next.aerodrome ? (
            <>
              {' '}
              at <span className="code-face">{next.aerodrome}</span>
            </>
          ) : null}
          {ready.map((r) => (
            <span key={r.key} className="d-block mt-1">
              <Verdict verdict={r.verdict}>
                {r.title}: {readyWords(r.said)}
              </Verdict>
            </span>
          ))}
        </>
      }
    >
      <a className="btn btn-outline-primary" href={`/api/bookings/${next.id}/ics`} download>
        Calendar file
      </a>
    </Title>
  );
}

/** The most pressing thing large, the others below it. */
function Tasks({ c }: { c: PilotLessons }) {
  const [now, ...later] = c.tasks;
  if (!now)
    return (
      <section className="panel" aria-label="To do">
        <h2>Nothing to do</h2>
        <p className="mb-0">
          {idleWords(c)}{' '}
          {c.status === 'open' && c.ready ? <Link href={`/checkouts/${c.id}/brief`}>Read it again</Link> : null}
        </p>
      </section>
    );
  const { title, text, href, button } = taskWords(c.id, now);
  return (
    <section className="panel do-now" aria-label="To do">
      <h2>{title}</h2>
      {now.kind === 'brief' ? <Glance brief={now.brief} /> : <p>{text}</p>}
      <Link className="btn btn-primary" href={href}>
        {button}
      </Link>
      {later.length > 0 ? (
        <ul className="plain-list mt-3 mb-0">
          {later.map((t) => {
            const w = taskWords(c.id, t);
            return (
              <li key={`${t.kind}${t.lesson}`}>
                <Link href={w.href}>{w.title}</Link>
              </li>
            );
          })}
        </ul>
      ) : null}
    </section>
  );
}

function idleWords(c: PilotLessons): string {
  if (c.status !== 'open') return 'You are recommended: the examiner decides, and your instructor enters the result.';
  if (c.ready) return `You have read the brief of lesson ${c.ready.lesson}.`;
  return c.lessons === 0
    ? `${first(c.instructor)} briefs your first lesson; it will be here to read.`
    : 'The next brief will be here to read when it is saved.';
}

function taskWords(id: string, t: PilotTask): { title: string; text: string; href: string; button: string } {
  switch (t.kind) {
    case 'brief':
      return {
        title: `Read and acknowledge the brief of lesson ${t.lesson}`,
        text: '',
        href: `/checkouts/${id}/brief`,
        button: 'Open the brief',
      };
    case 'assess':
      return {
        title: `Assess lesson ${t.lesson} yourself`,
        text: `Three taps about your ${plural(t.landings, 'landing')}, before you see what was recorded.`,
        href: `/checkouts/${id}/debrief?lesson=${t.lesson}`,
        button: 'Start',
      };
    case 'debrief':
      return {
        title: `Read and acknowledge the debrief of lesson ${t.lesson}`,
        text: 'What was found, and what to focus on next time.',
        href: `/checkouts/${id}/debrief?lesson=${t.lesson}`,
        button: 'Open the debrief',
      };
  }
}

const GUST = { none: 'no gust additive', half: 'half the gust spread', full: 'the full gust spread' } as const;
function Glance({ brief }: { brief: BriefAtAGlance }) {
  const { intended, gust, threshold, place, focus, changed } = brief;
  return (
    <>
      <p className="mb-2">
        {sentence([
          ...(place === null ? [] : [`flown at ${place}`]),
          ...(intended === null ? [] : [`${say(intended)} landings`]),
          GUST[gust],
          ...(threshold === null
            ? ['no speed over the threshold is given']
            : [`${withUnit(threshold.dial, threshold.unit)} over the threshold`]),
        ])}
      </p>
      {changed === null ? null : (
        <p className="mb-2">
          {changed.changes.length === 0
            ? `No change since lesson ${changed.since}.`
            : `Changed since lesson ${changed.since}: ${list(changed.changes.map(changeWords))}.`}
        </p>
      )}
      {focus === '' ? null : <p className="mb-2">Focus: {focus}.</p>}
    </>
  );
}

function Prepare({ c }: { c: PilotLessons }) {
  return (
    <Panel title="Prepare">
      {c.focus.length > 0 ? <p className="mb-2">To think of, from the last debrief: {list(c.focus)}.</p> : null}
      {c.drop.length > 0 ? (
        <p className="mb-2">
          Habits to drop in the {c.typeName}: {list(c.drop)}.
        </p>
      ) : null}
      {c.ready ? (
        <p className="mb-2">
          <Link href={`/print/kneeboard/${c.ready.briefId}`}>Kneeboard card of lesson {c.ready.lesson}</Link>
        </p>
      ) : null}
      <LabLinks checkoutId={c.id} />
    </Panel>
  );
}

function Progress({ c }: { c: PilotLessons }) {
  const met = c.items.filter((i) => i.met).length;
  const { own, landings } = c.run;
  return (
    <Panel title="Your progress">
      <div className="progress-ring">
        <Wheel
          segments={c.items.map((i) => ({ ...i, label: i.id }))}
          size={104}
          centre={`${met}/${c.items.length}`}
          label={`${met} of ${plural(c.items.length, 'item')} met`}
        />
        <div>
          <p className="mb-1">
            {landings === 0
              ? 'No landing flown yet.'
              : own === 0
                ? 'The last landing was helped, or outside the standard.'
                : own === landings
                  ? `All ${plural(landings, 'landing')} unassisted and to the standard.`
                  : `The last ${own === 1 ? 'landing' : `${own} landings`} unassisted and to the standard.`}
          </p>
          <p className="soft mb-1">
            {c.next.length > 0
              ? `Next: ${list(c.next.map((n) => n.charAt(0).toLowerCase() + n.slice(1)))}.`
              : 'Every item has its evidence.'}
          </p>
          {c.good.length > 0 ? (
            <p className="mb-1">Going well: {list(c.good.map((g) => g.charAt(0).toLowerCase() + g.slice(1)))}.</p>
          ) : null}
        </div>
      </div>
      <p className="mb-0 mt-2 d-flex gap-3 flex-wrap">
        <Link href={`/checkouts/${c.id}`}>Item by item</Link>
        {landings > 0 ? <Link href={`/checkouts/${c.id}/progress`}>Lesson by lesson</Link> : null}
      </p>
    </Panel>
  );
}

function Work({ c }: { c: PilotLessons }) {
  if (c.work.length === 0) return null;
  return (
    <Panel title="To work on">
      <ul className="plain-list mb-0 work-list">
        {c.work.map((w) => (
          <li key={w.id}>
            <p className="mb-1">{w.said}</p>
            <p className="mb-1">
              <strong>{w.exercise}.</strong> {w.how}
            </p>
            <Link href={w.href} aria-label={`Evidence: ${w.title}`}>
              Evidence
            </Link>
          </li>
        ))}
      </ul>
      <p className="soft small mb-0 mt-2">
        An exercise is a proposal: your instructor decides whether and how it is flown.
      </p>
    </Panel>
  );
}

function Bookings({ b }: { b: BoardData }) {
  return (
    <Panel title="Booked">
      <ul className="plain-list mb-0">
        {b.line
          .filter((x) => !x.past)
          .map((x) => (
            <li key={x.booking.id}>
              {x.when}, <span className="code-face">{x.booking.registration}</span>
              {x.booking.instructorName ? ` with ${first(x.booking.instructorName)}` : ''}
              {x.hit.length > 0 ? <b className="v-outside">, must move: {list(x.hit)}</b> : ''}
            </li>
          ))}
      </ul>
      <p className="mb-0 mt-2">
        <Link href="/schedule">Schedule</Link>
      </p>
    </Panel>
  );
}

/** One’s own dates, as sentences: a table has no room on a phone. */
function Expiring({ b }: { b: BoardData }) {
  return (
    <Panel title="Expiring">
      <ul className="plain-list mb-0 work-list">
        {b.lapses.map((l) => (
          <li key={l.lapse.key}>
            <span className="d-block">
              {capital(l.lapse.what)}: <LapseMark lapse={l.lapse} />
            </span>
            <span className="soft">
              Renewed by{' '}
              {l.lapse.restore ??
                (l.lapse.kind === 'dated' ? 'a new one, entered by the school' : 'one flight in the type')}
              .
            </span>{' '}
            {l.books ? (
              <Link href={`/schedule?kind=${l.books.kind}&air=${l.books.airframeId}`}>Book {l.books.registration}</Link>
            ) : null}
          </li>
        ))}
      </ul>
    </Panel>
  );
}

function Record({ user }: { user: CurrentUser }) {
  if (user.pilotId === null) return null;
  return (
    <Panel title="Your record">
      <p className="mb-2">Everything kept about you is yours to take along.</p>
      <p className="mb-0 d-flex gap-2 flex-wrap">
        <Link className="btn btn-outline-primary" href={`/people/${user.pilotId}`}>
          Currency and ratings
        </Link>
        <a className="btn btn-outline-primary" href={`/api/people/${user.pilotId}/logbook`}>
          Logbook, CSV
        </a>
        <a className="btn btn-outline-primary" href={`/api/people/${user.pilotId}/record`}>
          Whole record, JSON
        </a>
        <Link className="btn btn-outline-primary" href="/ledger">
          Sign-offs
        </Link>
        <Link className="btn btn-outline-primary" href="/settings#calendar">
          Calendar link
        </Link>
        <Link className="btn btn-outline-primary" href="/settings#install">
          Install on this device
        </Link>
      </p>
    </Panel>
  );
}
