'use client';
import { useEffect, useMemo, useRef, useState } from 'react';
import { TALLY_CODES, TALLY_COLUMNS, type TallyLanding, readTally, tallyWords } from '@/core/assess';
import { UNSEEN } from '@/domain/unseen';
import { INTERVENTIONS, say } from '@/domain/words';
import type { Folded, SortiePack } from '@/offline/protocol';
import type { SaveEvent } from './view';

/**
 * The tally of the card's back, typed or tapped in: the same codes, one landing a line. Kept on the device while it is
 * written.
 */
export function Paper({
  pack,
  folded,
  saveEvent,
  runwayEnd,
  done,
  say: tell,
}: {
  pack: SortiePack;
  folded: Folded;
  saveEvent: SaveEvent;
  runwayEnd: string;
  done: () => void;
  say: (line: string) => void;
}) {
  const key = `jeito-paper-${pack.sortieId}`;
  const [text, setText] = useState('');
  const [busy, setBusy] = useState(false);
  const box = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    setText(localStorage.getItem(key) ?? '');
    box.current?.focus();
  }, [key]);
  const write = (next: string) => {
    setText(next);
    localStorage.setItem(key, next);
  };
  const lines = useMemo(() => readTally(text), [text]);
  const good = lines.filter((l): l is typeof l & { landing: TallyLanding } => l.landing !== null);
  const cells = (text.split('\n').at(-1) ?? '').trim().split(/\s+/).filter(Boolean).length;
  const column = TALLY_COLUMNS[cells % TALLY_COLUMNS.length] ?? 'kind';
  const tap = (code: string) =>
    write(
      `${text.replace(/[ \t]+$/, '')}${text === '' || text.endsWith('\n') ? '' : cells >= TALLY_COLUMNS.length ? '\n' : ' '}${code}${cells + 1 === TALLY_COLUMNS.length ? '\n' : ''}`,
    );
  const flying = folded.flying[pack.sortieId] ?? pack.pilotId ?? null;
  const enter = async () => {
    if (busy || good.length === 0 || good.length < lines.length) return;
    setBusy(true);
    // The landings get their names before the first is saved: entered again after a crash they are the same landings,
    // not new ones.
    const before = JSON.parse(localStorage.getItem(`${key}-ids`) ?? 'null') as { text: string; ids: string[] } | null;
    const ids = before?.text === text ? before.ids : lines.map(() => crypto.randomUUID());
    localStorage.setItem(`${key}-ids`, JSON.stringify({ text, ids }));
    try {
      for (const [i, l] of good.entries()) {
        await saveEvent('landing-saved', ids[i] ?? crypto.randomUUID(), {
          ...UNSEEN,
          ...l.landing,
          runwayEnd,
          fromPaper: true,
          pilotId: flying === pack.pilotId ? null : flying,
        });
      }
      write('');
      localStorage.removeItem(`${key}-ids`);
      tell(`${good.length} landings saved on this device, from paper.`);
      done();
    } catch {
      // Said by the shell; what is not saved stays in the box.
    } finally {
      setBusy(false);
    }
  };
  return (
    <section aria-label="From paper" className="rows" style={{ paddingTop: 12 }}>
      <h1>From paper</h1>
      <p className="mb-0">
        One landing a line, the ten columns of the card: {TALLY_COLUMNS.join(', ')}. A dash is <em>not seen</em>, =
        repeats the line above. Runway {runwayEnd}; no wind is recorded, so these do not raise the crosswind limit.
      </p>
      <div className="typed">
        <label htmlFor="paper-lines">Landings</label>
        <textarea
          id="paper-lines"
          ref={box}
          className="mono"
          rows={Math.max(5, text.split('\n').length + 1)}
          value={text}
          spellCheck={false}
          autoCapitalize="characters"
          aria-describedby="paper-read"
          placeholder="T 3 3 B 0 0 0 0 0 0"
          onChange={(e) => write(e.target.value)}
        />
      </div>
      <div>
        <h2>Next: {column}</h2>
        <div className="taps t8" role="group" aria-label={`Next code, ${column}`}>
          {[...TALLY_CODES[column], '='].map((c) => (
            <button key={c} type="button" className="tap code-face" onClick={() => tap(c)}>
              {c}
            </button>
          ))}
        </div>
      </div>
      <ol id="paper-read" className="paper-read">
        {lines.map((l) => (
          <li key={l.line} value={l.line} className={l.problem ? 'wrong' : undefined}>
            {l.problem ? tallyWords(l.problem) : words(l.landing)}
          </li>
        ))}
      </ol>
      <div className="taps t2">
        <button type="button" className="tap big" onClick={done}>
          Not now<small>what you typed stays</small>
        </button>
        <button
          type="button"
          className="tap big go"
          disabled={busy || good.length === 0 || good.length < lines.length}
          onClick={() => void enter()}
        >
          {good.length < lines.length
            ? 'Correct the marked lines first'
            : `Enter ${good.length} landing${good.length === 1 ? '' : 's'}`}
        </button>
      </div>
    </section>
  );
}

/** A line read back in words, so that a slip of a column is seen. */
function words(l: TallyLanding | null): string {
  if (!l) return '';
  const sided = (name: string, x: { band: string; side: string | null } | null) =>
    x === null || x.band === 'none' ? '' : `, ${name} ${say(x.band)} ${x.side ?? ''}`;
  const whose = l.demonstration
    ? 'demonstration'
    : l.intervention === null
      ? 'not noted who flew it'
      : (INTERVENTIONS[l.intervention]?.word ?? '');
  return `${say(l.kind)}${l.touched ? `, touched ${l.touched === 'mains-first' ? 'mains first' : say(l.touched)}` : ''}${l.along ? `, ${say(l.along)}` : ''}${l.lateral ? `, ${say(l.lateral)}` : ''}${sided('drift', l.drift)}${sided('crab', l.crab)}${sided('swing', l.swing)}${l.bounce && l.bounce.count > 0 ? `, ${l.bounce.count} bounce${l.bounce.count > 1 ? 's' : ''}${l.bounce.handling ? ` ${say(l.bounce.handling)}` : ''}` : ''}: ${whose}`;
}
