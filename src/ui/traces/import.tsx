'use client';
import Button from 'react-bootstrap/Button';
import { type Remote, proxy, wrap } from 'comlink';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import type { Tracing } from '@/workers/trace.worker';
import { Field } from '../shared/field';
import { type ColumnsSeen, DOUBTFUL, type Mapping, MappingTable, Measurable } from './mapping';
import { FOUND_NAME, momentOf, elapsed } from './words';

export interface FlightChoice {
  id: string;
  name: string;
}
interface Props {
  flights: FlightChoice[];
  sortieId: string;
  context: TraceContext | null;
  /** The school's other aerodromes: what was not flown where it was briefed may have been flown there. */
  elsewhere: TraceContext['aerodrome'][];
}

const KEPT = 'jeito-trace-columns';
const MAX_MB = 120;
const signature = (headers: readonly string[]): string => headers.join('|').slice(0, 400);
function kept(headers: readonly string[]): Mapping {
  try {
    return (JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, Mapping>)[signature(headers)] ?? {};
  } catch {
    return {};
  }
}
function keep(headers: readonly string[], mapping: Mapping): void {
  try {
    const all = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, Mapping>;
    localStorage.setItem(KEPT, JSON.stringify({ ...all, [signature(headers)]: mapping }));
  } catch {
    /* A device that keeps nothing asks again. */
  }
}
/** A column said to be something other than its header tells; what the header tells needs no saying. */
const said = (mapping: Mapping): Mapping | null => (Object.keys(mapping).length > 0 ? mapping : null);

/** Adds a recording: reads it on this device, shows what it holds, asks about columns it cannot tell, then sends it. */
export function ImportTrace({ flights, sortieId, context, elsewhere }: Props) {
  const router = useRouter();
  const worker = useRef<{ raw: Worker; remote: Remote<Tracing> } | null>(null);
  const [file, setFile] = useState<File | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [sending, setSending] = useState(false);
  const [problem, setProblem] = useState('');
  const [seen, setSeen] = useState<ColumnsSeen | null>(null);
  const [asking, setAsking] = useState(false);
  const [mapping, setMapping] = useState<Mapping>({});
  const [found, setFound] = useState<TraceAnalysis | null>(null);
  const run = useRef(0);
  const stop = () => {
    worker.current?.raw.terminate();
    worker.current = null;
    run.current++;
  };
  useEffect(() => stop, []);
  const start = (): Remote<Tracing> => {
    if (!worker.current) {
      const raw = new Worker(new URL('../../workers/trace.worker.ts', import.meta.url), {
        type: 'module',
        name: 'trace',
      });
      worker.current = { raw, remote: wrap<Tracing>(raw) };
    }
    return worker.current.remote;
  };
  const read = async (f: File, m: Mapping | null) => {
    if (!context) return;
    stop();
    const mine = run.current;
    setProblem('');
    setFound(null);
    setShare(0.02);
    try {
      const remote = start();
      const columns = await remote.preview(f, m as never);
      if (mine !== run.current) return;
      setSeen(columns);
      const use = m ?? (columns ? kept(columns.headers) : {});
      if (!m) setMapping(use);
      const done = await remote.analyse(
        f,
        said(use) as never,
        context,
        elsewhere,
        proxy((s: number) => {
          if (mine === run.current) setShare(s);
        }),
      );
      if (mine !== run.current) return;
      setShare(null);
      if (done.ok) {
        setFound(done.analysis);
        if (columns && done.columns) setSeen({ ...columns, columns: done.columns });
        // What time and place rest on is asked when it is little more than a guess.
        setAsking(
          done.columns?.some(
            (c) =>
              c.as !== null && /^(time:|lat$|lon$)/.test(c.as) && c.by !== 'said' && (c.confidence ?? 1) < DOUBTFUL,
          ) ?? false,
        );
      } else {
        setProblem(done.message);
        if (
          columns &&
          (done.code === 'columns' ||
            done.code === 'not-a-trace' ||
            done.code === 'no-position' ||
            done.code === 'no-time')
        )
          setAsking(true);
      }
    } catch (error) {
      if (mine !== run.current) return;
      setShare(null);
      setProblem(
        `The file cannot be read here${error instanceof Error && error.message ? `: ${error.message}` : ''}. Export it from the recorder again.`,
      );
    }
  };
  const choose = (f: File | null) => {
    stop();
    setFile(f);
    setFound(null);
    setSeen(null);
    setAsking(false);
    setMapping({});
    setProblem('');
    setShare(null);
    if (!f) return;
    if (f.size > MAX_MB * 1e6) {
      setProblem(`The file has more than ${MAX_MB} MB: cut it to the flight.`);
      return;
    }
    void read(f, null);
  };
  const send = async () => {
    if (!file) return;
    setSending(true);
    setProblem('');
    const form = new FormData();
    form.set('sortie', sortieId);
    const use = said(mapping);
    if (use) form.set('mapping', JSON.stringify(use));
    form.set('file', file);
    try {
      const response = await fetch('/api/traces', { method: 'POST', body: form });
      const answer = (await response.json()) as { ok?: boolean; id?: string; problems?: { message: string }[] };
      if (answer.ok && answer.id) {
        if (seen) keep(seen.headers, mapping);
        router.push(`/traces/${answer.id}`);
        return;
      }
      setProblem(answer.problems?.[0]?.message ?? 'It was not accepted.');
    } catch {
      setProblem('The server could not be reached. The file stays chosen: send it again when the network is back.');
    }
    setSending(false);
  };
  const arrivals = found?.events.filter((e) => e.kind !== 'takeoff') ?? [];
  return (
    <div className="grid">
      <section className="panel" aria-label="What to add">
        <div className="two">
          <Field label="Flight" id="trace-flight" hint="The lesson this recording belongs to.">
            <select
              value={sortieId}
              onChange={(e) => router.push(`/traces/new?sortie=${encodeURIComponent(e.target.value)}`)}
            >
              {sortieId === '' ? <option value="">Choose the flight</option> : null}
              {flights.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.name}
                </option>
              ))}
            </select>
          </Field>
          <Field
            label="Recording"
            id="trace-file"
            hint="A table of a panel or a tablet (CSV), GPX, IGC, KML or NMEA; zipped or gzipped too. It is read on this device first."
            error={problem ? { message: problem } : undefined}
          >
            <input
              type="file"
              accept=".csv,.txt,.tsv,.log,.gpx,.igc,.kml,.kmz,.nmea,.gz,.zip"
              disabled={!context || sending}
              onChange={(e) => choose(e.target.files?.[0] ?? null)}
            />
          </Field>
        </div>
        {share !== null ? (
          <div className="d-flex gap-3 align-items-center mt-3">
            <div
              className="progress flex-grow-1"
              role="progressbar"
              aria-label="Reading"
              aria-valuemin={0}
              aria-valuemax={100}
              aria-valuenow={Math.round(share * 100)}
            >
              <div className="progress-bar" style={{ width: `${Math.round(share * 100)}%` }} />
            </div>
            <Button
              variant="outline-primary"
              size="sm"
              onClick={() => {
                stop();
                setShare(null);
                setProblem('Reading was stopped. Choose the file again to read it.');
              }}
            >
              Stop
            </Button>
          </div>
        ) : null}
      </section>
      {seen && (asking || found) ? (
        <section className="panel" aria-label="Columns">
          <h2>{asking ? 'Assign the columns' : 'Columns'}</h2>
          {asking ? (
            <>
              <p className="mb-2">
                A time, latitude and longitude are needed; every further column is one more thing that can be measured.
                What you say is kept on this device for files with this header.
              </p>
              <MappingTable seen={seen} mapping={mapping} onChange={setMapping} />
              <Button
                variant="primary"
                className="mt-2"
                disabled={share !== null}
                onClick={() => {
                  if (file) void read(file, mapping);
                }}
              >
                Use these columns
              </Button>
            </>
          ) : (
            <p className="mb-0">
              {seen.columns.filter((c) => c.as !== null).length} of {seen.headers.length} columns are used
              {Object.keys(mapping).length > 0 ? ', some as said on this device' : ''}.{' '}
              <Button variant="outline-primary" size="sm" onClick={() => setAsking(true)}>
                Change columns
              </Button>
            </p>
          )}
        </section>
      ) : null}
      {found ? (
        <section className="panel" aria-label="Contents">
          <h2>Contents</h2>
          <p className="mb-2">
            <strong>
              {arrivals.length} {arrivals.length === 1 ? 'arrival' : 'arrivals'}, {found.airwork.length}{' '}
              {found.airwork.length === 1 ? 'item' : 'items'} of airwork, {found.exceedances.length}{' '}
              {found.exceedances.length === 1 ? 'limit' : 'limits'} exceeded
            </strong>
            , in {found.source.rows} rows at {found.source.rateHz} a second.
          </p>
          {found.source.warnings.length > 0 ? (
            <ul className="small mb-2">
              {found.source.warnings.map((w) => (
                <li key={w.code}>
                  {w.message}
                  {w.count > 1 ? ` (${w.count})` : ''}
                </li>
              ))}
            </ul>
          ) : null}
          <Measurable channels={found.source.channels} />
          <ol className="small mb-3 found-short">
            {found.events.map((e, i) => (
              <li key={i}>
                <span className="mono">{elapsed(momentOf(e))}</span> {FOUND_NAME[e.kind]} {e.runway}
              </li>
            ))}
          </ol>
          {found.exceedances.length > 0 ? (
            <p className="caution">
              A limit was exceeded. Adding this recording enters it for the aeroplane, which stays flagged until a chief
              releases it.
            </p>
          ) : null}
          <Button variant="primary" disabled={sending} onClick={() => void send()}>
            {sending ? 'Sending \u2026' : 'Add it to the flight'}
          </Button>
        </section>
      ) : null}
    </div>
  );
}
