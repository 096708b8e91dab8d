'use client';
import { useState } from 'react';
import { orderKept } from '@/core/assess';
import type { AirworkDetail } from '@/domain/capture';
import type { SortiePack } from '@/offline/protocol';
import { YesNo } from './yes-no';

type Steps = Extract<AirworkDetail, { form: 'steps' | 'exchange' }>;

/**
 * A list tapped in the order it is said or done: the number on each is its turn, what is out of order says so, what is
 * left over was missed.
 */
export function StepsForm({
  form,
  only,
  pack,
  detail,
  set,
}: {
  form: 'flow' | 'speeds' | 'exchange';
  only?: string;
  pack: SortiePack;
  detail: Steps | null;
  set: (d: AirworkDetail | null) => void;
}) {
  const lists = (pack.lists ?? []).filter((l) => (only ? l.key === only : l.kind === form));
  const [key, setKey] = useState(lists[0]?.key ?? '');
  const list = lists.find((l) => l.key === key) ?? lists[0];
  if (!list) return <p className="mb-0">The sheet has no such list.</p>;
  const ticks = detail?.list === list.title ? detail.ticks : [];
  const feetClear = detail?.form === 'exchange' ? detail.feetClear : null;
  const put = (next: number[], feet: boolean | null = feetClear) =>
    set(
      form === 'exchange'
        ? { form: 'exchange', list: list.title, steps: list.steps, ticks: next, feetClear: feet }
        : { form: 'steps', kind: form, list: list.title, steps: list.steps, ticks: next },
    );
  const order = orderKept(list.steps.length, ticks);
  const ordered = form !== 'speeds';
  return (
    <>
      {lists.length > 1 ? (
        <div className="taps t4" role="group" aria-label="List">
          {lists.map((l) => (
            <button
              key={l.key}
              type="button"
              className="tap"
              aria-pressed={l.key === list.key}
              onClick={() => {
                setKey(l.key);
                set(null);
              }}
            >
              {l.title}
            </button>
          ))}
        </div>
      ) : null}
      <div className="taps t2 steps" role="group" aria-label={list.title}>
        {list.steps.map((step, i) => {
          const turn = ticks.indexOf(i);
          const wrong = ordered && order.outOfOrder.includes(i);
          return (
            <button
              key={`${i}${step}`}
              type="button"
              className="tap left"
              aria-pressed={turn >= 0}
              onClick={() => put(turn >= 0 ? ticks.filter((t) => t !== i) : [...ticks, i])}
            >
              {turn >= 0 && ordered ? <span className="turn mono">{turn + 1}</span> : null}
              {step}
              {wrong ? <small>out of order</small> : null}
            </button>
          );
        })}
      </div>
      {form === 'exchange' ? <YesNo title="Feet came off too" now={feetClear} choose={(v) => put(ticks, v)} /> : null}
      {ticks.length > 0 && order.missed.length > 0 ? (
        <p className="mb-0" style={{ fontSize: 16 }}>
          {order.missed.length === 1 ? 'Not said yet' : `${order.missed.length} not said yet`}:{' '}
          {order.missed.map((i) => list.steps[i]).join(', ')}
        </p>
      ) : null}
    </>
  );
}
