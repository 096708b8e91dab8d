'use client';
import { useState } from 'react';
import type { SchoolTopic } from '@/domain/programme';
import FormSelect from 'react-bootstrap/FormSelect';
import FormText from 'react-bootstrap/FormText';
import FormLabel from 'react-bootstrap/FormLabel';
import type { ActionResult } from '../shared/forms';
import { useTap } from '../shared/use-tap';

/** One side chosen per topic on which good instructors disagree, with the reason for it. Kept at once. */
export function SchoolsForm({
  checkoutId,
  topics,
  chosen,
  action,
}: {
  checkoutId: string;
  topics: SchoolTopic[];
  chosen: Record<string, string>;
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const [now, setNow] = useState(chosen);
  const [saved, setSaved] = useState(false);
  const save = useTap();
  const choose = async (key: string, side: string) => {
    const next = { ...now, [key]: side };
    setNow(next);
    await save.tap(() => action({ checkoutId, schools: next }), {
      done: () => setSaved(true),
      refused: () => setNow(now),
      queued: true,
    });
  };
  return (
    <div className="d-grid gap-2">
      {topics.map((t) => (
        <div key={t.key}>
          <FormLabel htmlFor={`school-${t.key}`}>
            {t.topic}: <span className="soft">{t.changes}</span>
          </FormLabel>
          <FormSelect
            id={`school-${t.key}`}
            size="sm"
            value={now[t.key] ?? t.fallback}
            onChange={(e) => void choose(t.key, e.target.value)}
          >
            {t.sides.map((s) => (
              <option key={s.key} value={s.key}>
                {s.name}
              </option>
            ))}
          </FormSelect>
          <FormText as="div">{t.sides.find((s) => s.key === (now[t.key] ?? t.fallback))?.reason}</FormText>
        </div>
      ))}
      <div role="status" className="soft" style={{ minHeight: 20 }}>
        {save.busy ? 'Saving' : save.refusal || (saved ? 'Saved.' : '')}
      </div>
    </div>
  );
}
