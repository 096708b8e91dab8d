'use client';
import FormCheck from 'react-bootstrap/FormCheck';
import { useEffect, useState } from 'react';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { CARRY_WORDS, type Elsewhere as ElsewhereThere } from '@/core/assess';
import { dateText, list, plural } from '@/core/format';
import { type Goal, type PackId, say } from '@/domain/words';
import type { ActionResult } from '../shared/forms';
import { Link } from '../shared/link';
import { Panel } from '../shared/parts';

export type AskElsewhere = (form: unknown) => Promise<ActionResult<{ elsewhere: ElsewhereThere[] }>>;

/** Other open checkouts of the pilot, and what each already shows for this one, with the rule for it. */
export function Elsewhere({
  pilot,
  airframeId,
  pack,
  goals,
  ask,
  carry,
}: {
  pilot: { id: string; name: string };
  airframeId: string;
  pack: PackId;
  goals: readonly Goal[];
  ask: AskElsewhere;
  carry: UseFormRegisterReturn<'carry'>;
}) {
  const [open, setOpen] = useState<ElsewhereThere[]>([]);
  const asked = JSON.stringify({ pilotId: pilot.id, airframeId, pack, goals });
  useEffect(() => {
    let mine = true;
    void ask(JSON.parse(asked))
      // Without an answer nothing is offered: opening goes on without it.
      .then(
        (r) => mine && setOpen(r.ok ? r.elsewhere : []),
        () => mine && setOpen([]),
      );
    return () => {
      mine = false;
    };
  }, [ask, asked]);
  if (open.length === 0) return null;
  return (
    <Panel title={`Already open for ${pilot.name}`}>
      <ul className="plain-list mb-0" aria-live="polite">
        {open.map((e) => (
          <li key={e.id}>
            <p className="mb-1">
              <Link href={`/checkouts/${e.id}`}>
                {e.registration}, {e.typeName}
              </Link>
              : {list(e.goals.map(say))}, {plural(e.lessons, 'lesson')} with {e.instructor}.
            </p>
            {e.both.length > 0 ? (
              <p className="mb-1">
                Trained there already: {list(e.both.map(say))}. Carry what has been shown, or leave out a goal whose
                sign-off holds for both.
              </p>
            ) : null}
            {e.proves.length > 0 ? (
              <>
                <FormCheck
                  id={`carry-${e.id}`}
                  value={e.id}
                  label={`Carry ${plural(e.proves.length, 'item')} shown in ${e.registration}`}
                  {...carry}
                />
                <details className="small">
                  <summary>Which, and by what rule</summary>
                  <p className="mb-1 soft">
                    The same item, by the same rule, under the same law. What is known on the ground counts in every
                    aeroplane of the goal; what was flown counts in the same gear and mass. It lapses as a part sign-off
                    does, from the last day it was shown.
                  </p>
                  <ul className="mb-1">
                    {e.proves.map((p) => (
                      <li key={p.itemId}>
                        {p.itemId} {p.title}, last {dateText(p.on)} <span className="soft">({p.citation})</span>
                      </li>
                    ))}
                  </ul>
                </details>
              </>
            ) : null}
            {e.not.length > 0 ? (
              <details className="small">
                <summary>Met there and not counted here: {e.not.length}</summary>
                <ul className="mb-0">
                  {e.not.map((n) => (
                    <li key={n.title}>
                      {n.title}: {CARRY_WORDS[n.why]}
                    </li>
                  ))}
                </ul>
              </details>
            ) : null}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
