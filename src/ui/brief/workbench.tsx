'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { Link } from '../shared/link';
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import type { HabitCue } from '@/core/differences';
import { computeBrief, usableEnds } from '@/core/approach';
import { fixed, localText } from '@/core/format';
import { type Ladder } from '@/core/wind';
import type { BriefChoices } from '@/domain/brief';
import type { Aerodrome } from '@/domain/sheet';
import { say } from '@/domain/words';
import { Field } from '../shared/field';
import { DateInput } from '../shared/when-input';
import { type ActionProblem, type ActionResult, showProblems, useDraft } from '../shared/forms';
import { useTap } from '../shared/use-tap';
import { LiveEpoch } from '../shared/live';
import { Outranked, Panel, Problems } from '../shared/parts';
import { Title } from '../shared/title';
import { SourceKey } from '../shared/source';
import { type BriefFacts, BriefPanels } from './panels';
import { useEpoch, useServerNow } from './clock';
import { type BriefValues, FIELD_OF, type StationNow, choicesOf, reportAir, valuesOf } from './values';
import { type WindFields, readWindFields } from './wind-entry';
import { WindFieldset } from './wind-fields';
import { AirFields, HowFields, LoadingFields, SecondAeroplaneFields } from './day-fields';
import { newId } from '../shared/new-id';
import { notesTaken, waitingNotes } from '../lab/note';

export interface SavedBrief {
  briefId: string;
  sortieId: string;
  version: number;
  createdAt: string;
  acknowledgedAt: string | null;
  acknowledgedByName: string | null;
}
const NO_STATION: StationNow = { source: 'none', report: null, forecast: null, problem: null };

interface Props extends BriefFacts {
  checkoutId: string;
  lesson: number;
  choices: BriefChoices;
  airframeCrosswindKt: number | null;
  ladder: Ladder;
  habits: HabitCue[];
  eyeHeightM: number | null;
  /** Minutes on the ground of past flights of the type; empty = the school's figure counts. */
  groundSamplesMin: readonly number[];
  serverNow: string;
  /** Every aerodrome of the school and what is known of its weather; home first. */
  places: readonly { aerodrome: Aerodrome; station: StationNow }[];
  saved: SavedBrief | null;
  action: (form: unknown) => Promise<ActionResult<{ sortieId: string; briefId: string; lesson: number }>>;
  /** Null when this user may not set the house's order. */
  templateAction: ((form: unknown) => Promise<ActionResult>) | null;
}

/**
 * The brief as it is worked on: every number follows what is typed, at once; saving stores what the server computes
 * from the same choices.
 */
export function BriefWorkbench(props: Props) {
  const { sheet, choices, ladder, house, saved, lesson, checkoutId, places } = props;
  const placeOf = (ident: string | undefined) =>
    places.find((p) => p.aerodrome.ident === ident) ?? places[0] ?? { aerodrome: props.aerodrome, station: NO_STATION };
  const router = useRouter();
  const now = useServerNow(props.serverNow);
  // What this page was opened on; after somebody else’s brief was shown, theirs.
  const base = useRef(saved?.briefId ?? null);
  const form = useForm<BriefValues>({ defaultValues: valuesOf(choices, saved !== null, props.aerodrome.timeZone) });
  const draft = useDraft(form, `brief:${checkoutId}:${lesson}`);
  const removeModel = useCallback(
    (id: string) =>
      form.setValue(
        'models',
        form.getValues('models').filter((m) => m.id !== id),
        { shouldDirty: true },
      ),
    [form],
  );
  useEffect(() => {
    // After what was typed is back: pages of the lab that were put in here on the way.
    const waiting = waitingNotes(checkoutId);
    if (waiting.length === 0) return;
    const there = form.getValues('models');
    const fresh = waiting.filter((w) => !there.some((m) => m.id === w.id));
    form.setValue('models', [...there, ...fresh], { shouldDirty: true });
    notesTaken(checkoutId);
  }, [form, checkoutId]);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [restOpen, setRestOpen] = useState(false);
  const template = useTap();
  const sending = useTap();
  const [arrange, setArrange] = useState(false);
  const [requestId] = useState(() => newId());
  const { errors, isSubmitting } = form.formState;
  const v = form.watch();
  const { aerodrome, station } = placeOf(v.aerodrome);
  const wind = readWindFields(v, now, aerodrome.timeZone);
  const air = reportAir(v);
  const live = choicesOf(v, choices, wind.wind, air);
  const key = JSON.stringify(live);
  // What follows from the fields comes after them: a key is answered before the numbers are.
  const asked = useDeferredValue(key);
  const shownChoices = useMemo(() => JSON.parse(asked) as BriefChoices, [asked]);
  const shownAt = placeOf(shownChoices.aerodrome).aerodrome;
  const result = useMemo(
    () =>
      computeBrief(shownChoices, {
        sheet,
        airframeCrosswindKt: props.airframeCrosswindKt,
        aerodrome: shownAt,
        house,
        ladder,
        pilotName: props.pilotName,
        habits: props.habits,
        eyeHeightM: props.eyeHeightM,
        dual: true,
        groundSamplesMin: props.groundSamplesMin,
        nowIso: now,
      }),
    [
      shownChoices,
      sheet,
      props.airframeCrosswindKt,
      shownAt,
      house,
      ladder,
      props.pilotName,
      props.habits,
      props.eyeHeightM,
      props.groundSamplesMin,
      now,
    ],
  );
  // Until it is chosen the runway is the best of the day; from land to water and back goes nobody but the instructor.
  const surfaceOf = (end: string | null) => result.runways.find((r) => r.ident === end)?.surface === 'water';
  const best =
    result.chosenEnd !== null && surfaceOf(result.chosenEnd) === surfaceOf(v.runwayEnd)
      ? result.chosenEnd
      : v.runwayEnd;
  // With the wind alone: a change of flap or mass does not move the brief to another runway.
  const windKey = `${v.aerodrome} ${JSON.stringify(wind.wind)}`;
  const followed = useRef('');
  useEffect(() => {
    // Not before the numbers of this wind are there.
    if (followed.current === windKey || asked !== key) return;
    // Asked of the form, not of this drawing: a runway chosen since it was drawn stays chosen.
    const { runwayByHand, runwayEnd } = form.getValues();
    if (runwayByHand) return;
    followed.current = windKey;
    if (best !== runwayEnd) form.setValue('runwayEnd', best);
  }, [best, form, windKey, asked, key]);
  const ends = usableEnds(aerodrome, sheet.surface);
  useEffect(() => {
    // A runway of another aerodrome is none here. Asked of the form, too: what was chosen since stays chosen.
    const here = usableEnds(aerodrome, sheet.surface);
    if (!here.some((e) => e.ident === form.getValues('runwayEnd'))) form.setValue('runwayEnd', here[0]?.ident ?? '');
  }, [aerodrome, form, sheet.surface]);
  const epoch = useEpoch(asked);
  const shown = useMemo(
    () => ({ ...props, aerodrome: shownAt, choices: shownChoices, result, removeModel }),
    [props, shownAt, shownChoices, result, removeModel],
  );
  const windMessage = (path: keyof WindFields) =>
    wind.problem?.path === path ? { message: wind.problem.message } : undefined;

  const send = form.handleSubmit(async (values) => {
    if (wind.problem) return form.setError(wind.problem.path, { message: wind.problem.message }, { shouldFocus: true });
    const numbers = {
      ...live,
      flownOn: values.flownOn,
      fuelL: values.fuelL,
      pilotKg: values.pilotKg,
      instructorKg: values.instructorKg,
      rearKg: values.rearKg,
      baggageKg: values.baggageKg,
      bookingMin: values.bookingMin,
    };
    await sending.tap(() => props.action({ requestId, checkoutId, choices: numbers, base: base.current }), {
      refused: ({ base: now, problems }) => {
        if (now !== undefined) base.current = now;
        setRestOpen(true);
        const beside = problems.map((p) => ({ ...p, path: FIELD_OF[p.path] ?? p.path }));
        setRest(showProblems(form, beside));
      },
      done: () => {
        draft.clear();
        router.push(`/checkouts/${checkoutId}/fly`);
      },
    });
  });
  const saveTemplate =
    props.templateAction === null
      ? null
      : async () => {
          const save = () =>
            props.templateAction?.({ checkoutId, layout: v.layout }) ?? Promise.resolve({ ok: true as const });
          const answer = await template.tap(save, { done: () => undefined });
          return answer?.ok === false
            ? answer.problems.map((p) => p.message).join(' ')
            : 'Saved: new briefs of this goal start in this order.';
        };

  return (
    <form onSubmit={(e) => void send(e)} noValidate>
      <Title
        long
        title={`Brief for lesson ${lesson}`}
        line={
          saved
            ? `Saved ${localText(saved.createdAt, aerodrome.timeZone)}, version ${saved.version}; ${saved.acknowledgedAt ? `acknowledged by ${saved.acknowledgedByName ?? 'the pilot'} ${localText(saved.acknowledgedAt, aerodrome.timeZone)}` : 'the pilot has not acknowledged it yet'}.`
            : `${props.registration}: not saved yet. Paste the wind, check the picture, save.`
        }
      >
        <Button variant="outline-primary" aria-pressed={arrange} onClick={() => setArrange(!arrange)}>
          {arrange ? 'Done arranging' : 'Arrange'}
        </Button>
        <Link className="btn btn-outline-primary" href={`/checkouts/${checkoutId}/differences`}>
          Habits
        </Link>
        {saved ? (
          <Link className="btn btn-outline-primary" href={`/print/kneeboard/${saved.briefId}`}>
            Card
          </Link>
        ) : null}
        {saved ? (
          <Link className="btn btn-outline-primary" href={`/checkouts/${checkoutId}/fly`}>
            Go to Fly
          </Link>
        ) : null}
      </Title>
      <Problems problems={rest} title="Not saved" />
      <div className="grid">
        <Panel title="Today">
          <div className="brief-form">
            {places.length > 1 ? (
              <Field label="Flown at" id="aerodrome" error={errors.aerodrome}>
                <select {...form.register('aerodrome', { onChange: () => form.setValue('runwayByHand', false) })}>
                  {places.map((p, i) => (
                    <option key={p.aerodrome.ident} value={i === 0 ? '' : p.aerodrome.ident}>
                      {p.aerodrome.name} {p.aerodrome.ident}
                    </option>
                  ))}
                </select>
              </Field>
            ) : null}
            <WindFieldset
              ident={aerodrome.ident}
              air={air}
              errors={errors}
              form={form}
              station={station}
              v={v}
              windMessage={windMessage}
            />
            <Field label="Runway" id="runwayEnd" error={errors.runwayEnd}>
              <select {...form.register('runwayEnd', { onChange: () => form.setValue('runwayByHand', true) })}>
                {ends.map((r) => (
                  <option key={r.ident} value={r.ident}>
                    {r.ident} {r.surface} {r.lengthM} m{r.ident === result.chosenEnd ? ', best today' : ''}
                  </option>
                ))}
              </select>
            </Field>
            <Field label="Day of the lesson" id="flownOn" error={errors.flownOn}>
              <DateInput {...form.register('flownOn')} />
            </Field>
          </div>
          <details className="mt-2" open={restOpen} onToggle={(e) => setRestOpen(e.currentTarget.open)}>
            <summary>
              Mass {fixed(result.massKg)} kg, {fixed(live.bookingMin)} min,{' '}
              {v.gustSchool === 'none'
                ? 'no gust additive'
                : v.gustSchool === 'half'
                  ? 'half the gust spread'
                  : 'the full gust spread'}
              {sheet.gear.layout === 'tailwheel' ? `, ${say(v.intended)} landings intended` : ''}
              {v.focus ? `, “${v.focus}”` : ''}. Change
            </summary>
            <div className="brief-form mt-2">
              <LoadingFields errors={errors} form={form} sheet={sheet} />
              <AirFields air={air} errors={errors} form={form} water={surfaceOf(v.runwayEnd)} />
              <HowFields errors={errors} form={form} sheet={sheet} />
              {v.two ? <SecondAeroplaneFields errors={errors} form={form} /> : null}
              <div style={{ gridColumn: 'span 2' }}>
                <Field label="One thing to focus on" id="focus" error={errors.focus} hint="Shown in the cockpit.">
                  <input {...form.register('focus')} />
                </Field>
              </div>
            </div>
          </details>
          <Button type="submit" variant="primary" className="mt-2" disabled={isSubmitting}>
            {isSubmitting ? 'Saving' : saved ? 'Save new version' : 'Save brief'}
          </Button>
        </Panel>
        {station.forecast ? (
          <p className="soft mb-0 small code-face">
            {station.forecast}{' '}
            <span style={{ fontFamily: 'var(--bs-body-font-family)' }}>
              {station.source === 'simulated' ? '(simulated station)' : '(as received)'}
            </span>
          </p>
        ) : null}
        <SourceKey />
        <LiveEpoch value={epoch}>
          <BriefPanels
            shown={shown}
            arranging={
              arrange
                ? { change: (layout) => form.setValue('layout', layout, { shouldDirty: true }), saveTemplate }
                : null
            }
          />
        </LiveEpoch>
        <Outranked extra="A verdict here is arithmetic on the limits shown, not a permission to fly." />
      </div>
    </form>
  );
}
