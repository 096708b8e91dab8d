'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { WEEKDAYS, dayText, localClock, clockText, localInstant, minutesText, readClock } from '@/core/schedule';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';

interface Window {
  weekday: number;
  from: string;
  to: string;
}
/** The weekly windows of one person: a row a window, days without one are closed. */
export function WindowsForm({
  person,
  name,
  today,
  windows,
  stamp,
  save,
}: {
  person: string;
  name: string;
  today: string;
  windows: readonly { weekday: number; fromMin: number; toMin: number }[];
  /** What the weekly times were when this page was made. */
  stamp: string;
  save: (form: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const [base, setBase] = useState(stamp);
  useEffect(() => setBase(stamp), [stamp]);
  const [list, setList] = useState<Window[]>(
    windows
      .map((w) => ({ weekday: w.weekday, from: minutesText(w.fromMin), to: minutesText(w.toMin) }))
      .sort((a, b) => a.weekday - b.weekday || a.from.localeCompare(b.from)),
  );
  const [from, setFrom] = useState(today);
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [said, setSaid] = useState('');
  const set = (i: number, next: Partial<Window>) => {
    setList(list.map((w, j) => (j === i ? { ...w, ...next } : w)));
    setSaid('');
  };
  const send = async () => {
    const bad = list.findIndex((w) => readClock(w.from) === null || readClock(w.to) === null);
    if (bad >= 0)
      return setProblems([
        { path: `windows.${bad}`, message: `Give both times of ${WEEKDAYS[(list[bad]?.weekday ?? 1) - 1] ?? ''}.` },
      ]);
    const answer = await runAction(() =>
      save({
        person,
        base,
        validFrom: from,
        windows: list.map((w) => ({
          weekday: w.weekday,
          fromMin: readClock(w.from) ?? 0,
          toMin: readClock(w.to) ?? 0,
        })),
      }),
    );
    setProblems(answer.ok ? [] : answer.problems);
    setSaid(answer.ok ? 'Kept.' : '');
    if (answer.ok) router.refresh();
    else if (typeof answer.base === 'string') setBase(answer.base);
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
      className="d-grid gap-2"
      aria-label={`Weekly times of ${name}`}
    >
      <Problems problems={problems} title="Not kept" />
      {list.length === 0 ? <p className="soft mb-0">No weekly times: {name} can be booked at any hour.</p> : null}
      {list.map((w, i) => (
        <div key={i} className="d-flex gap-2 align-items-center">
          <select
            aria-label={`Day ${i + 1}`}
            className="form-select form-select-sm"
            style={{ maxWidth: 150 }}
            value={w.weekday}
            onChange={(e) => set(i, { weekday: Number(e.target.value) })}
          >
            {WEEKDAYS.map((d, n) => (
              <option key={d} value={n + 1}>
                {d}
              </option>
            ))}
          </select>
          <input
            aria-label={`From, row ${i + 1}`}
            type="time"
            className="form-control form-control-sm"
            style={{ maxWidth: 120 }}
            value={w.from}
            onChange={(e) => set(i, { from: e.target.value })}
          />
          <input
            aria-label={`To, row ${i + 1}`}
            type="time"
            className="form-control form-control-sm"
            style={{ maxWidth: 120 }}
            value={w.to}
            onChange={(e) => set(i, { to: e.target.value })}
          />
          <Button variant="link" size="sm" onClick={() => setList(list.filter((_, j) => j !== i))}>
            take out<span className="visually-hidden"> row {i + 1}</span>
          </Button>
        </div>
      ))}
      <div className="d-flex gap-2 align-items-end flex-wrap">
        <Button
          variant="outline-primary"
          size="sm"
          onClick={() => setList([...list, { weekday: 1, from: '09:00', to: '17:00' }])}
        >
          Add a time
        </Button>
        <div>
          <label className="form-label" htmlFor={`from-${person}`}>
            From
          </label>
          <input
            id={`from-${person}`}
            type="date"
            className="form-control form-control-sm"
            value={from}
            onChange={(e) => setFrom(e.target.value)}
          />
        </div>
        <Button type="submit" variant="primary" size="sm">
          Keep these times
        </Button>
        <span role="status" className="soft">
          {said}
        </span>
      </div>
    </form>
  );
}

/** Somebody away, or an aeroplane taken out of the line. */
export function AwayForm({
  options,
  zone,
  today,
  save,
}: {
  options: readonly { key: string; name: string }[];
  zone: string;
  today: string;
  save: (form: unknown) => Promise<ActionResult<{ hit: string[] }>>;
}) {
  const router = useRouter();
  const empty = { who: '', fromDay: today, fromAt: '08:00', toDay: '', toAt: '18:00', why: '', requestId: '' };
  const [v, setV] = useState(empty);
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [hit, setHit] = useState<string[] | null>(null);
  const at = (path: string) => problems.find((p) => p.path === path);
  const send = async () => {
    const requestId = v.requestId || crypto.randomUUID();
    setV({ ...v, requestId });
    const [f, t] = [readClock(v.fromAt), readClock(v.toAt)];
    const answer = await runAction(() =>
      save({
        requestId,
        who: v.who,
        fromAt: v.fromDay && f !== null ? localInstant(v.fromDay, f, zone) : '',
        toAt: v.toDay === '' ? null : localInstant(v.toDay, t ?? 0, zone),
        why: v.why,
      }),
    );
    if (!answer.ok) {
      setHit(null);
      return setProblems(answer.problems);
    }
    setProblems([]);
    setHit(answer.hit);
    setV(empty);
    router.refresh();
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
      className="d-grid gap-2"
      aria-label="Away or down"
    >
      <Problems
        problems={problems.filter((p) => !['who', 'fromAt', 'toAt', 'why'].includes(p.path))}
        title="Not kept"
      />
      <Field label="Who or what" id="away-who" error={at('who')}>
        <select value={v.who} onChange={(e) => setV({ ...v, who: e.target.value })}>
          <option value="">Choose</option>
          {options.map((o) => (
            <option key={o.key} value={o.key}>
              {o.name}
            </option>
          ))}
        </select>
      </Field>
      <div className="two">
        <Field label="From" id="away-from" error={at('fromAt')}>
          <input type="date" value={v.fromDay} onChange={(e) => setV({ ...v, fromDay: e.target.value })} />
        </Field>
        <Field label="at, local" id="away-from-at">
          <input type="time" value={v.fromAt} onChange={(e) => setV({ ...v, fromAt: e.target.value })} />
        </Field>
        <Field label="To" id="away-to" error={at('toAt')} hint="empty, for an aeroplane: until further notice">
          <input type="date" value={v.toDay} onChange={(e) => setV({ ...v, toDay: e.target.value })} />
        </Field>
        <Field label="at, local" id="away-to-at">
          <input type="time" value={v.toAt} onChange={(e) => setV({ ...v, toAt: e.target.value })} />
        </Field>
      </div>
      <Field label="Why" id="away-why" error={at('why')}>
        <input value={v.why} onChange={(e) => setV({ ...v, why: e.target.value })} />
      </Field>
      <div>
        <Button type="submit" variant="primary">
          Save time away
        </Button>
      </div>
      <div role="status">
        {hit === null ? null : hit.length === 0 ? (
          <p className="note-good mb-0">Kept. No booking is touched by it.</p>
        ) : (
          <div className="trouble">
            <strong>Kept. These bookings must be moved or cancelled</strong>
            <ul>
              {hit.map((h) => (
                <li key={h}>{h}</li>
              ))}
            </ul>
          </div>
        )}
      </div>
    </form>
  );
}

export function AwayList({
  rows,
  zone,
  end,
}: {
  rows: readonly {
    id: string;
    name: string;
    kind: string;
    from: string;
    to: string | null;
    why: string;
    ends: boolean;
  }[];
  zone: string;
  end: (form: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const when = (iso: string) => `${dayText(localClock(iso, zone).date)} ${clockText(iso, zone)}`;
  return (
    <Panel title="Away and down now, and to come">
      {rows.length === 0 ? (
        <p className="soft mb-0">Nobody is away and every aeroplane is in the line.</p>
      ) : (
        <ul className="plain-list">
          {rows.map((r) => (
            <li key={r.id}>
              <b>{r.name}</b> {r.kind === 'away' ? 'away' : 'down'},{' '}
              {r.to === null ? `since ${when(r.from)}, until further notice` : `${when(r.from)} to ${when(r.to)}`}:{' '}
              {r.why}{' '}
              {r.ends ? (
                <Button
                  variant="link"
                  size="sm"
                  className="p-0"
                  onClick={() => void runAction(() => end({ id: r.id, why: '' })).then(() => router.refresh())}
                >
                  {r.kind === 'away' ? 'not away after all' : 'back in the line'}
                  <span className="visually-hidden">: {r.name}</span>
                </Button>
              ) : r.kind === 'exceedance' || r.kind === 'grounded' ? (
                <span className="soft">until its release is entered</span>
              ) : null}
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}
