'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { applyChanges, type KeptChange, overlap } from '@/domain/draft-forms';
import { fieldOf, type FormNode, type Path, putAt, valueAt } from '@/domain/form-node';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { newId } from '../shared/new-id';

type Keep = (form: unknown) => Promise<ActionResult<{ seq: number; others: KeptChange[]; refused: string[] }>>;
/** A field that two machines changed: what stands now, and what was entered here. */
export interface Conflict {
  path: string;
  by: string;
  mine: unknown;
}
interface Asked {
  key: string;
  /** Whose entries: what one left on this device is not sent in the name of another. */
  me: string;
  baseVersion: number;
  sheet: unknown;
  seq: number;
  node: FormNode;
  keep: Keep;
}
const WAIT_MS = 700;
const AGAIN_MS = 5_000;
const LOOK_MS = 10_000;
const parts = (path: string): Path => path.split('.');

/**
 * A sheet that is entered on more than one machine: shown at once, kept on the server field by field a moment later,
 * and on this device until the server has it. What others change comes in by itself; a field changed on both is shown
 * as it stands, with what was entered here beside it.
 */
export function useTypeDraft({ key, me, baseVersion, sheet: start, seq, node, keep }: Asked) {
  const [page] = useState(() => newId());
  const [sheet, setSheet] = useState(start);
  const [state, setState] = useState<'kept' | 'keeping' | 'here'>('kept');
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [conflicts, setConflicts] = useState<Conflict[]>([]);
  const [others, setOthers] = useState<KeptChange[]>([]);
  const pending = useRef(new Map<string, unknown>());
  const seen = useRef(seq);
  const shown = useRef(start);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const underway = useRef<Promise<boolean> | null>(null);
  const prefix = `jeito-sheet:${me}:${key}:`;
  const show = (next: unknown) => {
    shown.current = next;
    setSheet(next);
  };
  const remember = useCallback(() => {
    const name = `${prefix}${page}`;
    if (pending.current.size === 0) localStorage.removeItem(name);
    else localStorage.setItem(name, JSON.stringify([...pending.current]));
  }, [page, prefix]);

  /** @returns whether everything entered is on the server, and nothing of it was changed elsewhere */
  const send = useCallback(
    async (look = false): Promise<boolean> => {
      while (underway.current) await underway.current;
      if (pending.current.size === 0 && !look) return true;
      const sent = [...pending.current];
      const run = (async () => {
        if (sent.length > 0) setState('keeping');
        const changes = sent.map(([path, value]) => ({ path, value }));
        const answer = await runAction(() => keep({ key, baseVersion, seen: seen.current, page, changes }));
        if (!answer.ok) {
          if (sent.length > 0) {
            setState('here');
            setProblems(answer.problems);
          }
          return false;
        }
        for (const [path, value] of sent) if (pending.current.get(path) === value) pending.current.delete(path);
        const came = answer.others.filter((o) => !answer.refused.some((r) => overlap(r, o.path)));
        const clashed = answer.others.filter((o) => answer.refused.some((r) => overlap(r, o.path)));
        const free = came.filter((o) => ![...pending.current.keys()].some((p) => overlap(p, o.path)));
        if (answer.others.length > 0) show(applyChanges(shown.current, [...free, ...clashed]));
        const clashes = answer.refused
          .map((path) => ({
            path,
            by: clashed.filter((o) => overlap(o.path, path)).pop()?.by ?? '',
            mine: sent.find(([p]) => p === path)?.[1],
          }))
          // The same on both machines is no conflict.
          .filter((c) => JSON.stringify(valueAt(shown.current, parts(c.path))) !== JSON.stringify(c.mine));
        if (clashes.length > 0) setConflicts((c) => [...c.filter((x) => !answer.refused.includes(x.path)), ...clashes]);
        if (free.length > 0) setOthers((o) => [...o.filter((x) => !free.some((f) => f.path === x.path)), ...free]);
        seen.current = answer.seq;
        setProblems([]);
        remember();
        setState(pending.current.size === 0 ? 'kept' : 'here');
        return clashes.length === 0;
      })();
      underway.current = run;
      const done = await run;
      underway.current = null;
      if (pending.current.size > 0) later(done ? WAIT_MS : AGAIN_MS);
      return done && pending.current.size === 0;
    },
    // `later` and `send` call each other; both are stable for the life of the page.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [key, baseVersion, page, keep, remember],
  );
  const later = (ms: number) => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => void send(), ms);
  };
  const keepField = (field: string, value: unknown) => {
    pending.current.set(field, value);
    remember();
    setState('here');
    later(WAIT_MS);
  };
  const set = (path: Path, value: unknown) => {
    const next = putAt(shown.current, path, value);
    show(next);
    const field = fieldOf(node, path.map(String));
    keepField(field, valueAt(next, parts(field)));
  };
  /** Puts what was entered here in place of what stands. */
  const putMine = (c: Conflict) => {
    setConflicts((all) => all.filter((x) => x !== c));
    show(putAt(shown.current, parts(c.path), c.mine));
    keepField(c.path, c.mine);
  };
  const leaveTheirs = (c: Conflict) => setConflicts((all) => all.filter((x) => x !== c));

  useEffect(() => {
    // What a closed lid or a lost network left on this device.
    for (const name of Object.keys(localStorage).filter((k) => k.startsWith(prefix) && k !== `${prefix}${page}`)) {
      for (const [path, value] of JSON.parse(localStorage.getItem(name) ?? '[]') as [string, unknown][]) {
        pending.current.set(path, value);
        shown.current = putAt(shown.current, parts(path), value);
      }
      localStorage.removeItem(name);
    }
    if (pending.current.size > 0) {
      setSheet(shown.current);
      setState('here');
      remember();
    }
    void send(true);
    // A page that is left sends what it has; one that is come back to hears of the others.
    const look = () => void send(document.visibilityState === 'visible');
    const every = setInterval(() => {
      if (document.visibilityState === 'visible') look();
    }, LOOK_MS);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearInterval(every);
      document.removeEventListener('visibilitychange', look);
      if (timer.current) clearTimeout(timer.current);
      void send();
    };
  }, [prefix, page, remember, send]);

  return useMemo(
    () => ({ sheet, state, problems, conflicts, others, seen, set, send, putMine, leaveTheirs }),
    // The functions close over refs only.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [sheet, state, problems, conflicts, others, send],
  );
}
