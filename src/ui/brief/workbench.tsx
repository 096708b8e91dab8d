'use client';
import { useRouter } from 'next/navigation';
import { Link } from '../shared/link';
import { useEffect, useMemo, useState, useRef } from 'react';
import { useForm } from 'react-hook-form';
import type { HabitCue } from '@/core/differences';
import { computeBrief } from '@/core/approach';
import { fixed, instantText } from '@/core/format';
import { type Ladder, readReport } from '@/core/wind';
import type { BriefChoices } from '@/domain/brief';
import { say } from '@/domain/words';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
import { LiveEpoch } from '../shared/live';
import { Outranked, Panel, Problems, Title } from '../shared/parts';
import { SourceKey } from '../shared/source';
import { type Layout, completeLayout } from './arrange';
import { type BriefFacts, BriefPanels } from './panels';
import { type WindFields, readWindFields, windToFields } from './wind-entry';

interface Values extends WindFields {
  flownOn: string;
  runwayEnd: string;
  maxFlap: string;
  fuelL: number;
  pilotKg: number;
  instructorKg: number;
  rearKg: number;
  baggageKg: number;
  gustSchool: BriefChoices['gustSchool'];
  intended: BriefChoices['intended'];
  instructorLimit: string;
  focus: string;
  qnh: string;
  oat: string;
  wet: boolean;
  night: boolean;
  bookingMin: number;
  two: boolean;
  secondReg: string;
  secondLeads: 'this' | 'other';
  secondPosition: string;
  secondPlace: string;
  secondFt: string;
  secondAt: string;
  secondBreak: string;
  layout: Layout;
}
export interface SavedBrief {
  briefId: string;
  sortieId: string;
  version: number;
  createdAt: string;
  acknowledgedAt: string | null;
  acknowledgedByName: string | null;
}
export interface StationNow {
  report: string;
  forecast: string;
}
interface Props extends BriefFacts {
  checkoutId: string;
  lesson: number;
  choices: BriefChoices;
  airframeCrosswindKt: number | null;
  ladder: Ladder;
  habits: HabitCue[];
  eyeHeightM: number | null;
  serverNow: string;
  station: StationNow;
  saved: SavedBrief | null;
  action: (form: unknown) => Promise<ActionResult<{ sortieId: string; briefId: string; lesson: number }>>;
  /** Null when this user may not set the house's order. */
  templateAction: ((form: unknown) => Promise<ActionResult>) | null;
}

const text = (n: number | null): string => (n === null ? '' : String(n));
const numberOf = (t: string): number | null =>
  t.trim() === '' || !Number.isFinite(Number(t.replace(',', '.'))) ? null : Number(t.replace(',', '.'));

/** What the report itself says of altimeter setting, temperature and the trend, which changes no number here. */
function reportAir(v: Pick<WindFields, 'windKind' | 'report'>): {
  qnhHpa: number | null;
  oatC: number | null;
  trend: string | null;
} {
  const read = v.windKind === 'report' && v.report.trim() !== '' ? readReport(v.report) : null;
  if (!read?.ok) return { qnhHpa: null, oatC: null, trend: null };
  const { qnhHpa, temperatureC, trend } = read.report;
  const unread = trend && trend.unread.length > 0 ? ` Not read: ${trend.unread.join(' ')}.` : '';
  return {
    qnhHpa,
    oatC: temperatureC,
    trend: trend && trend.text !== 'NOSIG' ? `Trend, not in these numbers: ${trend.text}.${unread}` : null,
  };
}

/**
 * The brief as it is worked on: every number follows what is typed, at once; saving stores what the server computes
 * from the same choices.
 */
export function BriefWorkbench(props: Props) {
  const { sheet, choices, ladder, aerodrome, house, saved, lesson, checkoutId, station } = props;
  const router = useRouter();
  const now = useServerNow(props.serverNow);
  // What this page was opened on; after somebody else’s brief was shown, theirs.
  const base = useRef(saved?.briefId ?? null);
  const fields = windToFields(choices.wind);
  const fromReport = reportAir(fields);
  const form = useForm<Values>({
    defaultValues: {
      ...choices,
      ...fields,
      maxFlap: text(choices.maxFlapDeg),
      instructorLimit: text(choices.instructorLimitKt),
      qnh: choices.qnhHpa === fromReport.qnhHpa ? '' : text(choices.qnhHpa),
      oat: choices.oatC === fromReport.oatC ? '' : text(choices.oatC),
      wet: choices.surfaceState === 'wet',
      layout: completeLayout(choices.layout),
      two: choices.second !== null,
      secondReg: choices.second?.registration ?? '',
      secondLeads: choices.second?.leads ?? 'this',
      secondPosition: choices.second?.position ?? '',
      secondPlace: choices.second?.place ?? '',
      secondFt: text(choices.second?.heightFt ?? null),
      secondAt: choices.second?.at ?? '',
      secondBreak: text(choices.second?.breakS ?? null),
    },
  });
  const draft = useDraft(form, `brief:${checkoutId}:${lesson}`);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [restOpen, setRestOpen] = useState(false);
  const [arrange, setArrange] = useState(false);
  const [requestId] = useState(() => crypto.randomUUID());
  const { errors, isSubmitting } = form.formState;
  const v = form.watch();
  const wind = readWindFields(v, now);
  const air = reportAir(v);
  const typed = (n: number, fallback: number) => (Number.isFinite(n) ? n : fallback);
  const live: BriefChoices = {
    flownOn: v.flownOn,
    runwayEnd: v.runwayEnd,
    wind: wind.wind,
    maxFlapDeg: v.maxFlap === '' ? null : Number(v.maxFlap),
    gustSchool: v.gustSchool,
    speedSchool: choices.speedSchool,
    intended: v.intended,
    focus: v.focus,
    fuelL: typed(v.fuelL, choices.fuelL),
    pilotKg: typed(v.pilotKg, choices.pilotKg),
    instructorKg: typed(v.instructorKg, choices.instructorKg),
    rearKg: typed(v.rearKg, 0),
    baggageKg: typed(v.baggageKg, 0),
    instructorLimitKt: numberOf(v.instructorLimit),
    qnhHpa: numberOf(v.qnh) ?? air.qnhHpa,
    oatC: numberOf(v.oat) ?? air.oatC,
    surfaceState: v.wet ? 'wet' : 'dry',
    night: v.night,
    bookingMin: typed(v.bookingMin, choices.bookingMin),
    second: v.two
      ? {
          registration: v.secondReg,
          leads: v.secondLeads,
          position: v.secondPosition,
          place: v.secondPlace,
          heightFt: numberOf(v.secondFt),
          at: v.secondAt,
          breakS: numberOf(v.secondBreak),
        }
      : null,
    layout: v.layout,
    ...(choices.plan ? { plan: choices.plan } : {}),
  };
  const key = JSON.stringify(live);
  const result = useMemo(
    () =>
      computeBrief(JSON.parse(key) as BriefChoices, {
        sheet,
        airframeCrosswindKt: props.airframeCrosswindKt,
        aerodrome,
        house,
        ladder,
        pilotName: props.pilotName,
        habits: props.habits,
        eyeHeightM: props.eyeHeightM,
        dual: true,
        groundSamplesMin: [],
        nowIso: now,
      }),
    [
      key,
      sheet,
      props.airframeCrosswindKt,
      aerodrome,
      house,
      ladder,
      props.pilotName,
      props.habits,
      props.eyeHeightM,
      now,
    ],
  );
  const epoch = useEpoch(key);
  const windMessage = (path: keyof WindFields) =>
    wind.problem?.path === path ? { message: wind.problem.message } : undefined;

  const send = form.handleSubmit(async (values) => {
    if (wind.problem) return form.setError(wind.problem.path, { message: wind.problem.message }, { shouldFocus: true });
    const numbers = {
      ...live,
      fuelL: values.fuelL,
      pilotKg: values.pilotKg,
      instructorKg: values.instructorKg,
      rearKg: values.rearKg,
      baggageKg: values.baggageKg,
      bookingMin: values.bookingMin,
    };
    const answer = await runAction(() => props.action({ requestId, checkoutId, choices: numbers, base: base.current }));
    if (!answer.ok) {
      if (answer.base !== undefined) base.current = answer.base;
      setRestOpen(true);
      const PATHS: Record<string, string> = {
        instructorLimitKt: 'instructorLimit',
        qnhHpa: 'qnh',
        oatC: 'oat',
        'second.breakS': 'secondBreak',
        'second.heightFt': 'secondFt',
      };
      return setRest(
        showProblems(
          form,
          answer.problems.map((p) => ({ ...p, path: PATHS[p.path] ?? p.path })),
        ),
      );
    }
    draft.clear();
    router.push(`/checkouts/${checkoutId}/fly`);
  });
  const number = { valueAsNumber: true } as const;
  const saveTemplate =
    props.templateAction === null
      ? null
      : async () => {
          const answer = await runAction(
            () => props.templateAction?.({ checkoutId, layout: v.layout }) ?? Promise.resolve({ ok: true as const }),
          );
          return answer.ok
            ? 'Kept: new briefs of this goal start in this order.'
            : (answer.problems[0]?.message ?? 'not kept');
        };

  return (
    <form onSubmit={(e) => void send(e)} noValidate>
      <Title
        title={`Brief for lesson ${lesson}`}
        line={
          saved
            ? `Saved ${instantText(saved.createdAt)}, version ${saved.version}; ${saved.acknowledgedAt ? `acknowledged by ${saved.acknowledgedByName ?? 'the pilot'} ${instantText(saved.acknowledgedAt)}` : 'the pilot has not acknowledged it yet'}.`
            : `${props.registration}: not saved yet. Paste the wind, look at the picture, save.`
        }
      >
        <button
          type="button"
          className="btn btn-outline-primary"
          aria-pressed={arrange}
          onClick={() => setArrange(!arrange)}
        >
          {arrange ? 'Done arranging' : 'Arrange'}
        </button>
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
            To fly
          </Link>
        ) : null}
        <button type="submit" className="btn btn-primary" disabled={isSubmitting}>
          {isSubmitting ? 'Saving' : saved ? 'Save again' : 'Save the brief'}
        </button>
      </Title>
      <Problems problems={rest} title="Not saved" />
      <div className="grid">
        <Panel title="Today">
          <div className="brief-form">
            <div style={{ gridColumn: 'span 2' }}>
              <div role="radiogroup" aria-label="Wind from" className="d-flex gap-3 mb-1">
                {(['report', 'typed'] as const).map((k) => (
                  <div key={k} className="form-check">
                    <input
                      className="form-check-input"
                      type="radio"
                      id={`wind-${k}`}
                      value={k}
                      {...form.register('windKind')}
                    />
                    <label className="form-check-label" htmlFor={`wind-${k}`}>
                      {k === 'report' ? 'Wind from a report' : 'Wind heard or seen'}
                    </label>
                  </div>
                ))}
              </div>
              {v.windKind === 'report' ? (
                <Field
                  label="METAR"
                  id="report"
                  error={errors.report ?? windMessage('report')}
                  hint={
                    <>
                      Pasted or typed; directions in a report are true.{' '}
                      <button
                        type="button"
                        className="btn btn-link btn-sm p-0 align-baseline"
                        onClick={() => form.setValue('report', station.report)}
                      >
                        Take the station’s: {station.report.split(' ')[2]}
                      </button>
                    </>
                  }
                >
                  <input
                    className="mono"
                    placeholder="ZPAV 241420Z 26011G17KT CAVOK 18/07 Q1016"
                    {...form.register('report')}
                  />
                </Field>
              ) : null}
              {v.windKind === 'report' && air.trend ? (
                <p className="mb-0 small soft" role="note">
                  {air.trend}
                </p>
              ) : null}
              {v.windKind === 'report' ? null : (
                <div className="d-grid gap-2" style={{ gridTemplateColumns: 'repeat(5, minmax(0, 1fr))' }}>
                  <Field label="From" unit="deg" id="typedDir" error={windMessage('typedDir')}>
                    <input className="mono" inputMode="numeric" {...form.register('typedDir')} />
                  </Field>
                  <Field label="Mean" unit="kt" id="typedKt" error={windMessage('typedKt')}>
                    <input className="mono" inputMode="numeric" {...form.register('typedKt')} />
                  </Field>
                  <Field label="Gust" unit="kt" id="typedGust" error={windMessage('typedGust')}>
                    <input className="mono" inputMode="numeric" {...form.register('typedGust')} />
                  </Field>
                  <Field label="North" id="typedReference">
                    <select {...form.register('typedReference')}>
                      <option value="magnetic">magnetic</option>
                      <option value="true">true</option>
                    </select>
                  </Field>
                  <Field label="At" unit="UTC" id="typedAt" error={windMessage('typedAt')}>
                    <input className="mono" placeholder="now" {...form.register('typedAt')} />
                  </Field>
                </div>
              )}
            </div>
            <Field label="Runway" id="runwayEnd" error={errors.runwayEnd}>
              <select {...form.register('runwayEnd')}>
                {result.runways.map((r) => (
                  <option key={r.ident} value={r.ident}>
                    {r.ident} {r.surface} {r.lengthM} m{r.ident === result.chosenEnd ? ', suits best' : ''}
                  </option>
                ))}
              </select>
            </Field>
            <Field label="Day of the lesson" id="flownOn" error={errors.flownOn}>
              <input type="date" {...form.register('flownOn')} />
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
              , {say(v.intended)} landings meant{v.focus ? `, “${v.focus}”` : ''}. Change
            </summary>
            <div className="brief-form mt-2">
              <Field label="Pilot" unit="kg" id="pilotKg" error={errors.pilotKg}>
                <input type="number" step="any" {...form.register('pilotKg', number)} />
              </Field>
              <Field label="Instructor" unit="kg" id="instructorKg" error={errors.instructorKg}>
                <input type="number" step="any" {...form.register('instructorKg', number)} />
              </Field>
              <Field label="Fuel" unit="L" id="fuelL" error={errors.fuelL}>
                <input type="number" step="any" {...form.register('fuelL', number)} />
              </Field>
              <Field label="Baggage" unit="kg" id="baggageKg" error={errors.baggageKg}>
                <input type="number" step="any" {...form.register('baggageKg', number)} />
              </Field>
              {sheet.loading?.stations.some((x) => x.role === 'rear') ? (
                <Field label="Rear seats" unit="kg" id="rearKg" error={errors.rearKg}>
                  <input type="number" step="any" {...form.register('rearKg', number)} />
                </Field>
              ) : null}
              <Field label="Booking left" unit="min" id="bookingMin" error={errors.bookingMin}>
                <input type="number" step="any" {...form.register('bookingMin', number)} />
              </Field>
              <Field
                label="QNH"
                unit="hPa"
                id="qnh"
                error={errors.qnh}
                hint={air.qnhHpa === null ? 'Not in the report.' : `Empty: ${fixed(air.qnhHpa)} from the report.`}
              >
                <input inputMode="decimal" {...form.register('qnh')} />
              </Field>
              <Field
                label="Outside air"
                unit="°C"
                id="oat"
                error={errors.oat}
                hint={air.oatC === null ? 'Not in the report.' : `Empty: ${fixed(air.oatC)} from the report.`}
              >
                <input inputMode="decimal" {...form.register('oat')} />
              </Field>
              <div className="d-grid gap-1" style={{ alignContent: 'end' }}>
                {(
                  [
                    ['wet', 'runway wet'],
                    ['night', 'night'],
                    ['two', 'two aeroplanes'],
                  ] as const
                ).map(([name, label]) => (
                  <div key={name} className="form-check">
                    <input type="checkbox" className="form-check-input" id={name} {...form.register(name)} />
                    <label className="form-check-label" htmlFor={name}>
                      {label}
                    </label>
                  </div>
                ))}
              </div>
              <Field label="Gust additive" id="gustSchool">
                <select {...form.register('gustSchool')}>
                  <option value="half">half the spread</option>
                  <option value="full">the full spread</option>
                  <option value="none">none</option>
                </select>
              </Field>
              <Field label="Landings meant" id="intended">
                <select {...form.register('intended')}>
                  {(sheet.gear.layout === 'tailwheel'
                    ? (['three-point', 'mains-first'] as const)
                    : (['mains-first'] as const)
                  ).map((a) => (
                    <option key={a} value={a}>
                      {say(a)}
                    </option>
                  ))}
                </select>
              </Field>
              <Field label="Your own crosswind limit" unit="kt" id="instructorLimit" error={errors.instructorLimit}>
                <input inputMode="numeric" {...form.register('instructorLimit')} />
              </Field>
              {sheet.flapSteps.length > 1 ? (
                <Field label="Flap at most" id="maxFlap">
                  <select {...form.register('maxFlap')}>
                    <option value="">as the sheet and the wind say</option>
                    {sheet.flapSteps.map((f) => (
                      <option key={f} value={f}>
                        {f}°
                      </option>
                    ))}
                  </select>
                </Field>
              ) : null}
              {v.two ? (
                <>
                  <Field label="The other aeroplane" id="secondReg">
                    <input {...form.register('secondReg')} />
                  </Field>
                  <Field label="Who leads" id="secondLeads">
                    <select {...form.register('secondLeads')}>
                      <option value="this">we lead</option>
                      <option value="other">the other leads</option>
                    </select>
                  </Field>
                  <Field label="Position" id="secondPosition">
                    <input placeholder="echelon right, two spans" {...form.register('secondPosition')} />
                  </Field>
                  <Field label="Rendezvous" id="secondPlace">
                    <input {...form.register('secondPlace')} />
                  </Field>
                  <Field label="Rendezvous height" unit="ft QNH" id="secondFt" error={errors.secondFt}>
                    <input inputMode="numeric" {...form.register('secondFt')} />
                  </Field>
                  <Field label="Rendezvous time" id="secondAt">
                    <input placeholder="10:30 UTC" {...form.register('secondAt')} />
                  </Field>
                  <Field label="Break interval" unit="s" id="secondBreak" error={errors.secondBreak}>
                    <input inputMode="decimal" {...form.register('secondBreak')} />
                  </Field>
                </>
              ) : null}
              <div style={{ gridColumn: 'span 2' }}>
                <Field label="One thing to think of" id="focus" error={errors.focus} hint="Shown in the cockpit.">
                  <input {...form.register('focus')} />
                </Field>
              </div>
            </div>
          </details>
        </Panel>
        <p className="soft mb-0 small mono">
          {station.forecast} <span style={{ fontFamily: 'B612' }}>(simulated station)</span>
        </p>
        <LiveEpoch value={epoch}>
          <BriefPanels
            shown={{ ...props, choices: live, result }}
            arranging={
              arrange
                ? { change: (layout) => form.setValue('layout', layout, { shouldDirty: true }), saveTemplate }
                : null
            }
          />
        </LiveEpoch>
        <Outranked extra="A verdict here is arithmetic on the limits shown, not a permission to fly." />
        <SourceKey />
      </div>
    </form>
  );
}

/** The server's clock, carried on here; the device's own clock is not trusted for the age of a wind. */
function useServerNow(serverNow: string): string {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const started = performance.now();
    const timer = setInterval(
      () => setNow(new Date(Date.parse(serverNow) + (performance.now() - started)).toISOString()),
      30_000,
    );
    return () => clearInterval(timer);
  }, [serverNow]);
  return now;
}

/** Goes up by one with every change of the choices; numbers changed by the newest change carry its mark. */
function useEpoch(key: string): number {
  const [seen, setSeen] = useState({ key, epoch: 0 });
  if (seen.key === key) return seen.epoch;
  const next = { key, epoch: seen.epoch + 1 };
  setSeen(next);
  return next.epoch;
}
