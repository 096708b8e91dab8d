'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import Feedback from 'react-bootstrap/Feedback';
import FormCheck from 'react-bootstrap/FormCheck';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormCheckLabel from 'react-bootstrap/FormCheckLabel';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical, Trash2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import {
  type LessonInput,
  flightMinutes,
  flightRoom,
  groundMinutes,
  proposalInWords,
  proposeLesson,
} from '@/core/plan';
import { fixed, hoursText } from '@/core/format';
import { BLOCK_NAME, type PlanBlock } from '@/domain/plan';
import { moved } from '../brief/arrange';
import type { ActionResult } from '../shared/forms';
import { useTap } from '../shared/use-tap';
import { Link } from '../shared/link';
import { Panel, Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

export interface ForecastSlot {
  key: string;
  name: string;
  crosswindKt: number;
  runwayEnd: string;
  gust: boolean;
  dark: boolean;
}
interface Props {
  checkoutId: string;
  lesson: number;
  input: Omit<LessonInput, 'forecastKt' | 'bookingMin' | 'fuelMin'>;
  slots: readonly ForecastSlot[];
  firstSlot: string;
  bookingMin: number;
  fuelMin: number;
  fuelWords: string;
  saved: { version: number; by: string; at: string; blocks: PlanBlock[]; focus: string[] } | null;
  action: (form: unknown) => Promise<ActionResult<{ planId: string; version: number }>>;
}
const FILL: Record<PlanBlock['kind'], string> = {
  ground: 'var(--line)',
  airwork: 'var(--strip-soft)',
  'warm-up': 'var(--wash)',
  repeat: 'var(--ochre)',
  exercise: 'var(--ochre)',
  circuits: 'var(--lagoon-wash)',
  new: 'var(--lagoon)',
  strength: 'var(--meadow)',
  own: 'var(--wash)',
};
const INK: Partial<Record<PlanBlock['kind'], string>> = {
  repeat: 'var(--card)',
  exercise: 'var(--card)',
  new: 'var(--on-lagoon)',
  strength: 'var(--card)',
  airwork: '#16263a',
};

/**
 * The proposal as it is worked on: minutes and wind change it, the instructor's hand has the last word, and what is
 * kept goes into the brief.
 */
export function PlanWorkbench(p: Props) {
  const router = useRouter();
  const [slot, setSlot] = useState(p.firstSlot);
  const [booking, setBooking] = useState(String(p.bookingMin));
  const [hand, setHand] = useState<PlanBlock[] | null>(p.saved?.blocks ?? null);
  const { tap, busy, problems, setProblems } = useTap();
  const [said, setSaid] = useState('');
  const [requestId, setRequestId] = useState(() => newId());
  const bookingMin = Math.round(Number(booking));
  const bookingOk = Number.isFinite(bookingMin) && bookingMin >= 10 && bookingMin <= 720;
  const forecastKt = p.slots.find((s) => s.key === slot)?.crosswindKt ?? null;
  const input = useMemo<LessonInput>(
    () => ({ ...p.input, forecastKt, bookingMin: bookingOk ? bookingMin : p.bookingMin, fuelMin: p.fuelMin }),
    [p.input, forecastKt, bookingMin, bookingOk, p.bookingMin, p.fuelMin],
  );
  const proposal = useMemo(() => proposalInWords(proposeLesson(input)), [input]);
  const blocks = hand ?? proposal.blocks;
  const change = (next: PlanBlock[]) => {
    setHand(next);
    setSaid('');
    setProblems([]);
  };
  const room = flightRoom(input, groundMinutes(blocks));
  const flying = flightMinutes(blocks);
  const over = flying - room.roomMin;
  const [focus, setFocus] = useState<string | null>(p.saved ? p.saved.focus.join('; ') : null);
  const focusText = focus ?? proposal.focus.join('; ');
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = blocks.map((b) => b.id);
  const put = (id: string, to: number) => {
    const order = moved(ids, id, to);
    change(order.flatMap((x) => blocks.find((b) => b.id === x) ?? []));
  };
  const add = () =>
    change([
      ...blocks,
      {
        id: `own-${newId().slice(0, 8)}`,
        kind: 'own',
        title: 'Own step',
        why: '',
        minutes: 6,
        itemIds: [],
        findingId: null,
        lab: null,
      },
    ]);
  const save = async () => {
    if (!bookingOk) {
      setProblems([{ path: 'bookingMin', message: 'Give the minutes of the booking, 10 to 720.' }]);
      return;
    }
    const focus = focusText
      .split(';')
      .map((f) => f.trim())
      .filter((f) => f.length >= 3)
      .slice(0, 2);
    const { checkoutId, lesson } = p;
    await tap(() => p.action({ requestId, checkoutId, lesson, blocks, focus, bookingMin }), {
      refused: () => setSaid(''),
      done: ({ version }) => {
        setRequestId(newId());
        setSaid(`Saved as version ${version}. The brief of lesson ${lesson} uses it.`);
        router.refresh();
      },
    });
  };
  const total = Math.max(1, room.roomMin, flying);
  return (
    <div className="grid">
      <div className="grid g-2-1">
        <Panel title={`Lesson ${p.lesson}, step by step`}>
          <p className="mb-1" role="status">
            {flying} min of flying in {room.roomMin} (
            {room.limitedBy === 'fuel'
              ? `the fuel limits: ${p.fuelWords}`
              : `the booking of ${bookingOk ? bookingMin : p.bookingMin} min limits`}
            ){groundMinutes(blocks) > 0 ? `, ${groundMinutes(blocks)} min on the ground before` : ''}.{' '}
            {over > 0 ? (
              <strong className="v-outside">{over} min too long: shorten a step or remove one.</strong>
            ) : hand === null ? (
              'As proposed.'
            ) : (
              'As you arranged it.'
            )}
          </p>
          <div className="minutes-bar mb-3" aria-hidden>
            {blocks
              .filter((b) => b.kind !== 'ground')
              .map((b) => (
                <span
                  key={b.id}
                  style={{
                    width: `${(100 * b.minutes) / total}%`,
                    background: FILL[b.kind],
                    color: INK[b.kind] ?? 'var(--ink)',
                  }}
                  title={b.title}
                >
                  {b.minutes}
                </span>
              ))}
          </div>
          {blocks.length === 0 ? (
            <p>There is no time for a lesson in this booking. Make it longer, or do the ground items alone.</p>
          ) : (
            <DndContext
              sensors={sensors}
              collisionDetection={closestCenter}
              onDragEnd={({ active, over: at }) => {
                if (at && active.id !== at.id) put(String(active.id), ids.indexOf(String(at.id)));
              }}
            >
              <SortableContext items={ids} strategy={verticalListSortingStrategy}>
                <ol className="plan">
                  {blocks.map((b, i) => (
                    <Step
                      key={b.id}
                      block={b}
                      checkoutId={p.checkoutId}
                      n={i + 1}
                      up={i > 0 ? () => put(b.id, i - 1) : null}
                      down={i < blocks.length - 1 ? () => put(b.id, i + 1) : null}
                      change={(next) => change(blocks.map((x) => (x.id === b.id ? next : x)))}
                      remove={() => change(blocks.filter((x) => x.id !== b.id))}
                    />
                  ))}
                </ol>
              </SortableContext>
            </DndContext>
          )}
          <div className="d-flex gap-2 flex-wrap mt-3">
            <Button variant="outline-primary" size="sm" onClick={add}>
              Add a step of my own
            </Button>
            {hand === null ? null : (
              <Button
                variant="outline-primary"
                size="sm"
                onClick={() => {
                  setHand(null);
                  setFocus(null);
                  setSaid('Proposal restored.');
                }}
              >
                Back to the proposal
              </Button>
            )}
          </div>
        </Panel>
        <div className="grid" style={{ alignContent: 'start' }}>
          <Panel title="Time, fuel and wind">
            <div className="mb-2">
              <FormLabel htmlFor="plan-booking">
                Booking <span className="soft">(min)</span>
              </FormLabel>
              <FormControl
                id="plan-booking"
                isInvalid={!bookingOk}
                inputMode="numeric"
                value={booking}
                aria-invalid={!bookingOk}
                aria-describedby={bookingOk ? undefined : 'plan-booking-error'}
                onChange={(e) => {
                  setBooking(e.target.value);
                  setSaid('');
                }}
              />
              {bookingOk ? null : (
                <Feedback type="invalid" id="plan-booking-error" role="alert">
                  Give whole minutes, 10 to 720.
                </Feedback>
              )}
            </div>
            <p className="small mb-2">
              Fuel for {hoursText(p.fuelMin)} to the reserve: {p.fuelWords}. {fixed(p.input.groundMin)} min on the
              ground, {fixed(p.input.circuitMin)} min a circuit, by school figures.
            </p>
            <fieldset>
              <legend>When</legend>
              {p.slots.length === 0 ? (
                <p className="small mb-0">No forecast is known here: judge the wind of the day yourself.</p>
              ) : (
                p.slots.map((s) => (
                  <FormCheck key={s.key}>
                    <FormCheckInput
                      type="radio"
                      name="plan-slot"
                      id={`slot-${s.key}`}
                      checked={slot === s.key}
                      onChange={() => {
                        setSlot(s.key);
                        setSaid('');
                      }}
                    />
                    <FormCheckLabel className="small" htmlFor={`slot-${s.key}`}>
                      {s.name}: {fixed(s.crosswindKt)} kt crosswind on {s.runwayEnd}
                      {s.gust ? ', in gusts' : ''}
                      {s.dark ? ', ends in the dark' : ''}
                    </FormCheckLabel>
                  </FormCheck>
                ))
              )}
            </fieldset>
            <p className="mb-0 mt-2">
              <strong>
                {proposal.wind.state === 'above'
                  ? 'Wind above the limit.'
                  : proposal.wind.state === 'step'
                    ? 'Next crosswind step.'
                    : proposal.wind.state === 'below'
                      ? 'Wind already proven.'
                      : 'Wind not known.'}
              </strong>{' '}
              {proposal.wind.words.charAt(0).toUpperCase() + proposal.wind.words.slice(1)}.{' '}
              {p.slots.length > 0 ? (
                <span className="soft small">Simulated station; check the real weather.</span>
              ) : null}
            </p>
          </Panel>
          <Panel title="Left out, and why">
            {proposal.left.length === 0 ? (
              <p className="mb-0">Everything open fits.</p>
            ) : (
              <ul className="mb-0 ps-3">
                {proposal.left.map((l) => (
                  <li key={l.title}>
                    {l.title}: <span className="soft">{l.why}</span>
                  </li>
                ))}
              </ul>
            )}
          </Panel>
          <Panel title="Save plan">
            <FormLabel htmlFor="plan-focus">
              Focus, two things at most <span className="soft">(separate with a semicolon)</span>
            </FormLabel>
            <FormControl
              id="plan-focus"
              as="textarea"
              className="mb-2"
              rows={3}
              value={focusText}
              maxLength={240}
              onChange={(e) => {
                setFocus(e.target.value);
                setSaid('');
              }}
            />
            <Problems problems={problems} title="Not saved" />
            <p className="small soft mb-2" role="status">
              {said || (p.saved ? `Version ${p.saved.version}, saved by ${p.saved.by}.` : 'Not saved yet.')}
            </p>
            <Button variant="primary" disabled={busy || blocks.length === 0} onClick={() => void save()}>
              Save plan of lesson {p.lesson}
            </Button>
          </Panel>
        </div>
      </div>
    </div>
  );
}

function Step({
  block: b,
  checkoutId,
  n,
  up,
  down,
  change,
  remove,
}: {
  block: PlanBlock;
  checkoutId: string;
  n: number;
  up: (() => void) | null;
  down: (() => void) | null;
  change: (b: PlanBlock) => void;
  remove: () => void;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: b.id,
  });
  return (
    <li
      ref={setNodeRef}
      className={`${b.kind}${isDragging ? ' dragging' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <Button
        ref={setActivatorNodeRef}
        variant=""
        size="sm"
        className="grab"
        aria-label={`Move step ${n}, ${b.title}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={18} aria-hidden />
      </Button>
      <span className="small soft">{BLOCK_NAME[b.kind]}</span>
      <div className="plan-text">
        {b.kind === 'own' ? (
          <FormControl
            size="sm"
            aria-label={`Title of step ${n}`}
            value={b.title}
            maxLength={80}
            onChange={(e) => change({ ...b, title: e.target.value })}
          />
        ) : (
          <strong>{b.title}</strong>
        )}
        {b.why ? <div className="small soft">{b.why}</div> : null}
        {b.lab ? (
          <Link className="d-inline-block py-1" href={`/lab/${b.lab.page}?checkout=${checkoutId}&${b.lab.query}`}>
            See it in the lab
          </Link>
        ) : null}
      </div>
      <div className="input-group input-group-sm" style={{ width: 116 }}>
        <FormControl
          inputMode="numeric"
          aria-label={`Minutes of step ${n}, ${b.title}`}
          value={b.minutes}
          onChange={(e) => {
            const m = Math.round(Number(e.target.value));
            if (Number.isFinite(m)) change({ ...b, minutes: Math.max(0, Math.min(120, m)) });
          }}
        />
        <span className="input-group-text">min</span>
      </div>
      <div className="d-flex">
        <Button variant="" size="sm" aria-label={`Step ${n} up`} disabled={!up} onClick={() => up?.()}>
          <ArrowUp size={18} aria-hidden />
        </Button>
        <Button variant="" size="sm" aria-label={`Step ${n} down`} disabled={!down} onClick={() => down?.()}>
          <ArrowDown size={18} aria-hidden />
        </Button>
        <Button variant="" size="sm" aria-label={`Remove step ${n}, ${b.title}`} onClick={remove}>
          <Trash2 size={18} aria-hidden />
        </Button>
      </div>
    </li>
  );
}
