'use client';
import {
  DndContext,
  type DragEndEvent,
  type Modifier,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useRef, useState } from 'react';
import { minutesText, fitWords, type FitSaid } from '@/core/schedule';
import { say } from '@/domain/words';
import { BOOKING_NAME, type BookingKind } from '@/domain/schedule';
import { VerdictMark, VerdictShape } from '../shared/verdict';
import { FIT } from './fit';
import { lanes } from './lanes';

export interface GridBlock {
  id: string;
  column: string;
  fromMin: number;
  toMin: number;
  kind: BookingKind;
  pilotName: string | null;
  instructorName: string | null;
  registration: string | null;
  aerodrome: string | null;
  masked: boolean;
  mine: boolean;
  movable: boolean;
  split: { brief: number; prepare: number; flight: number; debrief: number } | null;
  fit: { word: string; said: FitSaid } | null;
  hit: string[];
}
export interface GridColumn {
  key: string;
  name: string;
  line: string;
  today: boolean;
  wind: { fromMin: number; toMin: number; text: string; acrossKt: number; sureness: number }[];
  sunriseMin: number | null;
  sunsetMin: number | null;
  shut: { fromMin: number; toMin: number; why: string }[];
}
interface Props {
  columns: readonly GridColumn[];
  blocks: readonly GridBlock[];
  openFromMin: number;
  openToMin: number;
  stepMin: number;
  nowMin: number | null;
  selected: string | null;
  main: string;
  choose: (id: string) => void;
  empty: (column: string, minutes: number) => void;
  moved: (id: string, column: string, fromMin: number) => void;
}
const PX_PER_MIN = 0.78;
const short = (name: string | null, tight: boolean): string =>
  (name ?? '')
    .split(' ')
    .slice(0, tight ? 1 : 2)
    .join(' ');

/**
 * Columns of days, or of people or aeroplanes of one day, over one axis of time. A block is taken by the pointer, or by
 * Space and the arrows.
 */
export function ScheduleGrid(p: Props) {
  const body = useRef<HTMLDivElement>(null);
  const height = (p.openToMin - p.openFromMin) * PX_PER_MIN;
  const stepPx = p.stepMin * PX_PER_MIN;
  const columnPx = (): number => {
    const box = body.current?.querySelector('.sch-col')?.getBoundingClientRect();
    return box && box.width > 0 ? box.width : 150;
  };
  const snap: Modifier = ({ transform }) => ({
    ...transform,
    x: Math.round(transform.x / columnPx()) * columnPx(),
    y: Math.round(transform.y / stepPx) * stepPx,
  });
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const [spoken, setSpoken] = useState('');
  // Taken up by the keyboard: how far it has been moved, in columns and steps.
  const [held, setHeld] = useState<{ id: string; columns: number; steps: number } | null>(null);
  const target = (id: string, columns: number, steps: number): { column: GridColumn; fromMin: number } | null => {
    const block = p.blocks.find((b) => b.id === id);
    if (!block) return null;
    const index = p.columns.findIndex((c) => c.key === block.column) + columns;
    const column = p.columns[Math.min(p.columns.length - 1, Math.max(0, index))];
    return column ? { column, fromMin: block.fromMin + steps * p.stepMin } : null;
  };
  const put = (id: string, columns: number, steps: number) => {
    const to = target(id, columns, steps);
    const block = p.blocks.find((b) => b.id === id);
    if (to && block && (to.column.key !== block.column || to.fromMin !== block.fromMin))
      p.moved(block.id, to.column.key, to.fromMin);
  };
  const end = ({ active, delta }: DragEndEvent) =>
    put(String(active.id), Math.round(delta.x / columnPx()), Math.round(delta.y / stepPx));
  const key = (id: string, e: React.KeyboardEvent): void => {
    const own = held?.id === id ? held : null;
    if (e.key === ' ' || (own && e.key === 'Enter')) {
      e.preventDefault();
      if (own) {
        setHeld(null);
        setSpoken('Dropped.');
        put(id, own.columns, own.steps);
      } else {
        setHeld({ id, columns: 0, steps: 0 });
        setSpoken('Picked up. Arrow keys move it, Space drops it, Escape cancels.');
      }
      return;
    }
    if (!own) return;
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const step = by[e.key];
    if (e.key === 'Escape') {
      e.preventDefault();
      setHeld(null);
      return setSpoken('Cancelled.');
    }
    if (!step) return;
    e.preventDefault();
    const at = p.columns.findIndex((c) => c.key === p.blocks.find((b) => b.id === id)?.column);
    const next = {
      id,
      columns: Math.min(p.columns.length - 1 - at, Math.max(-at, own.columns + step[0])),
      steps: own.steps + step[1],
    };
    setHeld(next);
    const to = target(id, next.columns, next.steps);
    setSpoken(to ? `${to.column.name}, ${minutesText(to.fromMin)}` : '');
  };
  const say = (id: string | number, delta: { x: number; y: number }) => {
    const to = target(String(id), Math.round(delta.x / columnPx()), Math.round(delta.y / stepPx));
    setSpoken(to ? `${to.column.name}, ${minutesText(to.fromMin)}` : '');
  };
  const hours = Array.from(
    { length: Math.floor(p.openToMin / 60) - Math.ceil(p.openFromMin / 60) + 1 },
    (_, i) => Math.ceil(p.openFromMin / 60) + i,
  );
  const y = (min: number) => (Math.min(p.openToMin, Math.max(p.openFromMin, min)) - p.openFromMin) * PX_PER_MIN;
  return (
    <DndContext
      id="schedule"
      sensors={sensors}
      autoScroll={false}
      modifiers={[snap]}
      onDragMove={({ active, delta }) => say(active.id, delta)}
      onDragEnd={(e) => {
        setSpoken('');
        end(e);
      }}
      onDragCancel={() => setSpoken('')}
      accessibility={{
        screenReaderInstructions: {
          draggable:
            'Enter opens the booking. Space picks it up; arrow keys move it in time and between columns; Space drops it, Escape cancels.',
        },
      }}
    >
      <p className="visually-hidden" aria-live="assertive">
        {spoken}
      </p>
      <div
        className="sch"
        style={{ gridTemplateColumns: `44px repeat(${p.columns.length}, minmax(0, 1fr))` }}
        ref={body}
      >
        <div aria-hidden />
        {p.columns.map((c) => (
          <div key={c.key} className={`sch-head${c.today ? ' today' : ''}`}>
            <b>{c.name}</b>
            <span>{c.line}</span>
          </div>
        ))}
        <div className="sch-axis" style={{ height }} aria-hidden>
          {hours.map((h) => (
            <span key={h} style={{ top: y(h * 60) }}>
              {String(h).padStart(2, '0')}
            </span>
          ))}
        </div>
        {p.columns.map((c) => (
          // eslint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/no-noninteractive-element-interactions -- a short cut for the pointer: by the keyboard the same form opens with `n` or New booking
          <div
            key={c.key}
            className={`sch-col${c.today ? ' today' : ''}`}
            style={{ height, backgroundSize: `100% ${60 * PX_PER_MIN}px` }}
            role="group"
            aria-label={`${c.name}, ${c.line}`}
            onClick={(e) => {
              if (e.target === e.currentTarget)
                p.empty(
                  c.key,
                  p.openFromMin +
                    Math.floor((e.clientY - e.currentTarget.getBoundingClientRect().top) / PX_PER_MIN / p.stepMin) *
                      p.stepMin,
                );
            }}
          >
            {c.sunriseMin !== null ? (
              <div className="sch-dark" style={{ top: 0, height: y(c.sunriseMin) }} aria-hidden />
            ) : null}
            {c.sunsetMin !== null ? (
              <div className="sch-dark" style={{ top: y(c.sunsetMin), height: height - y(c.sunsetMin) }} aria-hidden />
            ) : null}
            {c.shut.map((s) => (
              <div
                key={`${s.fromMin}${s.why}`}
                className="sch-shut"
                style={{ top: y(s.fromMin), height: y(s.toMin) - y(s.fromMin) }}
                title={s.why}
              >
                <span>{s.why}</span>
              </div>
            ))}
            {c.wind.map((w) => (
              <div
                key={w.fromMin}
                className="sch-wind"
                style={{ top: y(w.fromMin), height: y(w.toMin) - y(w.fromMin), width: 2 + Math.min(16, w.acrossKt) }}
                title={`${minutesText(w.fromMin)} ${w.text}, ${Math.round(w.acrossKt)} kt crosswind on ${p.main}, ${w.sureness === 1 ? 'forecast' : 'outlook'}`}
                aria-hidden
                data-sure={w.sureness === 1 ? 'yes' : 'no'}
              />
            ))}
            {p.nowMin !== null && c.today ? <div className="sch-now" style={{ top: y(p.nowMin) }} aria-hidden /> : null}
            {lanes(p.blocks.filter((b) => b.column === c.key)).map(({ block, lane, of }) => (
              <Block
                key={block.id}
                block={block}
                top={y(block.fromMin)}
                height={y(block.toMin) - y(block.fromMin)}
                lane={lane}
                of={of}
                selected={p.selected === block.id}
                choose={() => p.choose(block.id)}
                columnName={c.name}
                held={held?.id === block.id ? { x: `${held.columns * 100 * of}%`, y: held.steps * stepPx } : null}
                onKey={(e) => key(block.id, e)}
                leave={() => {
                  if (held?.id === block.id) {
                    setHeld(null);
                    setSpoken('Cancelled.');
                  }
                }}
              />
            ))}
          </div>
        ))}
      </div>
    </DndContext>
  );
}

function Block({
  block: b,
  top,
  height,
  lane,
  of,
  selected,
  choose,
  columnName,
  held,
  onKey,
  leave,
}: {
  block: GridBlock;
  top: number;
  height: number;
  lane: number;
  of: number;
  selected: boolean;
  choose: () => void;
  columnName: string;
  held: { x: string; y: number } | null;
  onKey: (e: React.KeyboardEvent) => void;
  leave: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: b.id, disabled: !b.movable });
  const minutes = b.toMin - b.fromMin;
  const part = (m: number) => `${(100 * m) / Math.max(1, minutes)}%`;
  const words = b.masked
    ? 'taken'
    : `${BOOKING_NAME[b.kind]}, ${b.pilotName ?? ''}${b.registration ? ` in ${b.registration}` : ''}${b.instructorName ? ` with ${b.instructorName}` : ''}${b.aerodrome ? ` at ${b.aerodrome}` : ''}`;
  return (
    <button
      type="button"
      ref={setNodeRef}
      {...attributes}
      {...(b.movable ? listeners : {})}
      disabled={b.masked}
      onClick={choose}
      onKeyDown={b.movable ? onKey : undefined}
      onBlur={leave}
      aria-pressed={selected}
      aria-roledescription={b.movable ? 'booking, can be moved' : 'booking'}
      className={`sch-block k-${b.kind}${b.mine ? ' mine' : ''}${selected ? ' on' : ''}${b.hit.length > 0 ? ' hit' : ''}${isDragging || held ? ' dragging' : ''}${of > 1 ? ' tight' : ''}`}
      style={{
        top,
        height: Math.max(20, height - 2),
        left: `calc(${(100 * lane) / of}% + 2px)`,
        width: `calc(${100 / of}% - ${of > 1 ? 4 : 10}px)`,
        transform: transform
          ? `translate3d(${transform.x}px, ${transform.y}px, 0)`
          : held
            ? `translate(${held.x}, ${held.y}px)`
            : undefined,
      }}
      aria-label={`${columnName} ${minutesText(b.fromMin)} to ${minutesText(b.toMin)}: ${words}${b.fit ? `. Wind ${say(b.fit.word)}: ${fitWords(b.fit.said)}` : ''}${b.hit.length > 0 ? `. Must be moved: ${b.hit.join('; ')}` : ''}`}
    >
      {b.split ? (
        <span
          className="sch-flight"
          style={{ top: part(b.split.brief + b.split.prepare), height: part(b.split.flight) }}
          aria-hidden
        />
      ) : null}
      <span className="sch-words">
        <span className="mono">{minutesText(b.fromMin)}</span>
        {b.hit.length > 0 ? (
          <>
            {' '}
            <VerdictShape verdict="outside" size={12} />
          </>
        ) : b.fit ? (
          <>
            {' '}
            <VerdictMark verdict={FIT[b.fit.word] ?? 'not-seen'} label="wind" />
          </>
        ) : null}
        <br />
        <b>{b.masked ? 'taken' : short(b.pilotName, of > 1)}</b>
        {b.registration ? (
          <>
            <br />
            <span className="code-face text-nowrap">{of > 1 ? b.registration.split('-').pop() : b.registration}</span>
          </>
        ) : null}
        {b.instructorName && of < 3 ? (
          <>
            <br />
            {b.instructorName.split(' ')[0]}
          </>
        ) : null}
        {b.hit.length > 0 ? (
          <>
            <br />
            <b>must move</b>
          </>
        ) : null}
      </span>
    </button>
  );
}
