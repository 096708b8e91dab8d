'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { type ActionProblem, type ActionResult, runAction } from './forms';

interface Then<A> {
  /** After it was done; absent = the page is read again. */
  done?: (answer: { ok: true } & A) => void;
  /** After the server has refused it. */
  refused?: (answer: Extract<ActionResult<A>, { ok: false }>) => void;
  /** Sent after the one on its way, not left out: what is chosen last is to stand. */
  queued?: boolean;
}

/**
 * The one way to send what has no form: a tap on a button. Sent once while it is on its way, and a refusal is kept to
 * be said; nothing is refused in silence.
 */
export function useTap() {
  const router = useRouter();
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [busy, setBusy] = useState(false);
  const underway = useRef<Promise<unknown> | null>(null);
  /** @returns the answer; null when the one before is still on its way */
  const tap = async <A = object>(
    action: () => Promise<ActionResult<A>>,
    { done, refused, queued }: Then<A> = {},
  ): Promise<ActionResult<A> | null> => {
    if (underway.current && !queued) return null;
    const before = underway.current;
    const sent = (async () => {
      await before;
      return runAction(action);
    })();
    underway.current = sent;
    setBusy(true);
    setProblems([]);
    const answer = await sent;
    if (underway.current === sent) {
      underway.current = null;
      setBusy(false);
    }
    if (!answer.ok) {
      setProblems(answer.problems);
      refused?.(answer);
    } else if (done) done(answer);
    else router.refresh();
    return answer;
  };
  return {
    tap,
    busy,
    problems,
    setProblems,
    /** Everything that was refused, in one line; empty when nothing was. */
    refusal: [...new Set(problems.map((p) => p.message))].join(' '),
  };
}
