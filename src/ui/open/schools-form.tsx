'use client';
import { useState } from 'react';
import type { SchoolTopic } from '@/domain/programme';
import { type ActionResult, runAction } from '../shared/forms';

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
  const [word, setWord] = useState('');
  const choose = async (key: string, side: string) => {
    const next = { ...now, [key]: side };
    setNow(next);
    setWord('keeping …');
    const answer = await runAction(() => action({ checkoutId, schools: next }));
    setWord(answer.ok ? 'kept' : (answer.problems[0]?.message ?? 'not kept'));
  };
  return (
    <div className="d-grid gap-2">
      {topics.map((t) => (
        <div key={t.key}>
          <label className="form-label" htmlFor={`school-${t.key}`}>
            {t.topic} <span className="soft">· {t.changes}</span>
          </label>
          <select
            id={`school-${t.key}`}
            className="form-select form-select-sm"
            value={now[t.key] ?? t.fallback}
            onChange={(e) => void choose(t.key, e.target.value)}
          >
            {t.sides.map((s) => (
              <option key={s.key} value={s.key}>
                {s.name}
              </option>
            ))}
          </select>
          <div className="form-text">{t.sides.find((s) => s.key === (now[t.key] ?? t.fallback))?.reason}</div>
        </div>
      ))}
      <div role="status" className="soft" style={{ minHeight: 20 }}>
        {word}
      </div>
    </div>
  );
}
