'use client';
import { useRouter } from 'next/navigation';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import { computeBrief } from '@/core/approach';
import { instantText } from '@/core/format';
import type { Ladder } from '@/core/wind';
import type { BriefChoices } from '@/domain/brief';
import type { Aerodrome } from '@/domain/sheet';
import { say } from '@/domain/words';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
import { Outranked, Panel, Problems, Title } from '../shared/parts';
import { SourceKey } from '../shared/source';
import { type BriefFacts, BriefPanels } from './panels';
import { type WindFields, readWindFields, windToFields } from './wind-entry';

interface Values extends WindFields { flownOn: string; runwayEnd: string; maxFlap: string; fuelL: number; pilotKg: number; instructorKg: number; baggageKg: number; gustSchool: BriefChoices['gustSchool']; intended: BriefChoices['intended']; instructorLimit: string; focus: string }
export interface SavedBrief { briefId: string; sortieId: string; version: number; createdAt: string; acknowledgedAt: string | null; acknowledgedByName: string | null }
interface Props extends BriefFacts {
  checkoutId: string;
  lesson: number;
  choices: BriefChoices;
  aerodrome: Aerodrome;
  airframeCrosswindKt: number | null;
  ladder: Ladder;
  serverNow: string;
  saved: SavedBrief | null;
  action: (form: unknown) => Promise<ActionResult<{ sortieId: string; briefId: string; lesson: number }>>;
}

/** The brief as it is worked on: every number follows what is typed, at once; saving stores what the server computes from the same choices. */
export function BriefWorkbench(props: Props) {
  const { sheet, choices, ladder, aerodrome, house, saved, lesson, checkoutId } = props;
  const router = useRouter();
  const now = useServerNow(props.serverNow);
  const form = useForm<Values>({ defaultValues: { ...choices, ...windToFields(choices.wind), maxFlap: choices.maxFlapDeg === null ? '' : String(choices.maxFlapDeg), instructorLimit: choices.instructorLimitKt === null ? '' : String(choices.instructorLimitKt) } });
  const draft = useDraft(form, `brief:${checkoutId}:${lesson}`);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [restOpen, setRestOpen] = useState(false);
  const [requestId] = useState(() => crypto.randomUUID());
  const { errors, isSubmitting } = form.formState;
  const v = form.watch();
  const wind = readWindFields(v, now);
  const typed = (n: number, fallback: number) => (Number.isFinite(n) ? n : fallback);
  const live: BriefChoices = {
    flownOn: v.flownOn, runwayEnd: v.runwayEnd, wind: wind.wind, maxFlapDeg: v.maxFlap === '' ? null : Number(v.maxFlap), gustSchool: v.gustSchool, intended: v.intended, focus: v.focus,
    fuelL: typed(v.fuelL, choices.fuelL), pilotKg: typed(v.pilotKg, choices.pilotKg), instructorKg: typed(v.instructorKg, choices.instructorKg), baggageKg: typed(v.baggageKg, 0),
    instructorLimitKt: v.instructorLimit === '' || !Number.isFinite(Number(v.instructorLimit)) ? null : Number(v.instructorLimit),
  };
  const key = JSON.stringify(live);
  const result = useMemo(
    () => computeBrief(JSON.parse(key) as BriefChoices, { sheet, airframeCrosswindKt: props.airframeCrosswindKt, aerodrome, house, ladder, pilotName: props.pilotName, dual: true, nowIso: now }),
    [key, sheet, props.airframeCrosswindKt, aerodrome, house, ladder, props.pilotName, now],
  );
  const windMessage = (path: keyof WindFields) => (wind.problem?.path === path ? { message: wind.problem.message } : undefined);

  const send = form.handleSubmit(async (values) => {
    if (wind.problem) return form.setError(wind.problem.path, { message: wind.problem.message }, { shouldFocus: true });
    const numbers = { ...live, fuelL: values.fuelL, pilotKg: values.pilotKg, instructorKg: values.instructorKg, baggageKg: values.baggageKg };
    const answer = await runAction(() => props.action({ requestId, checkoutId, choices: numbers }));
    if (!answer.ok) {
      setRestOpen(true);
      return setRest(showProblems(form, answer.problems.map((p) => (p.path === 'instructorLimitKt' ? { ...p, path: 'instructorLimit' } : p))));
    }
    draft.clear();
    router.push(`/checkouts/${checkoutId}/fly`);
  });
  const number = { valueAsNumber: true } as const;

  return (
    <form onSubmit={send} noValidate>
      <Title
        title={`Brief for lesson ${lesson}`}
        line={saved ? `Saved ${instantText(saved.createdAt)}, version ${saved.version}; ${saved.acknowledgedAt ? `acknowledged by ${saved.acknowledgedByName ?? 'the pilot'} ${instantText(saved.acknowledgedAt)}` : 'the pilot has not acknowledged it yet'}.` : `${props.registration}: not saved yet. Paste the wind, look at the picture, save.`}
      >
        {saved ? <Link className="btn btn-outline-primary" href={`/checkouts/${checkoutId}/fly`}>To fly</Link> : null}
        <button type="submit" className="btn btn-primary" disabled={isSubmitting}>{isSubmitting ? 'Saving' : saved ? 'Save again' : 'Save the brief'}</button>
      </Title>
      <Problems problems={rest} title="Not saved" />
      <div className="grid">
        <Panel title="Today">
          <div className="brief-form">
            <div style={{ gridColumn: 'span 2' }}>
              <div role="radiogroup" aria-label="Wind from" className="d-flex gap-3 mb-1">
                {(['report', 'typed'] as const).map((k) => <div key={k} className="form-check"><input className="form-check-input" type="radio" id={`wind-${k}`} value={k} {...form.register('windKind')} /><label className="form-check-label" htmlFor={`wind-${k}`}>{k === 'report' ? 'Wind from a report' : 'Wind heard or seen'}</label></div>)}
              </div>
              {v.windKind === 'report'
                ? <Field label="METAR" id="report" error={errors.report ?? windMessage('report')} hint="Pasted or typed; directions in a report are true."><input className="mono" placeholder="ZPAV 241420Z 26011G17KT CAVOK 18/07 Q1016" {...form.register('report')} /></Field>
                : <div className="d-grid gap-2" style={{ gridTemplateColumns: 'repeat(5, minmax(0, 1fr))' }}>
                    <Field label="From" unit="deg" id="typedDir" error={windMessage('typedDir')}><input className="mono" inputMode="numeric" {...form.register('typedDir')} /></Field>
                    <Field label="Mean" unit="kt" id="typedKt" error={windMessage('typedKt')}><input className="mono" inputMode="numeric" {...form.register('typedKt')} /></Field>
                    <Field label="Gust" unit="kt" id="typedGust" error={windMessage('typedGust')}><input className="mono" inputMode="numeric" {...form.register('typedGust')} /></Field>
                    <Field label="North" id="typedReference"><select {...form.register('typedReference')}><option value="magnetic">magnetic</option><option value="true">true</option></select></Field>
                    <Field label="At" unit="UTC" id="typedAt" error={windMessage('typedAt')}><input className="mono" placeholder="now" {...form.register('typedAt')} /></Field>
                  </div>}
            </div>
            <Field label="Runway" id="runwayEnd" error={errors.runwayEnd}><select {...form.register('runwayEnd')}>{result.runways.map((r) => <option key={r.ident} value={r.ident}>{r.ident} {r.surface} {r.lengthM} m{r.ident === result.chosenEnd ? ', least crosswind' : ''}</option>)}</select></Field>
            <Field label="Day of the lesson" id="flownOn" error={errors.flownOn}><input type="date" {...form.register('flownOn')} /></Field>
          </div>
          <details className="mt-2" open={restOpen} onToggle={(e) => setRestOpen(e.currentTarget.open)}>
          <summary>Mass {Math.round(result.massKg)} kg, {v.gustSchool === 'none' ? 'no gust additive' : v.gustSchool === 'half' ? 'half the gust spread' : 'the full gust spread'}, {say(v.intended)} landings meant{v.focus ? `, “${v.focus}”` : ''}. Change</summary>
          <div className="brief-form mt-2">
            <Field label="Pilot" unit="kg" id="pilotKg" error={errors.pilotKg}><input type="number" step="any" {...form.register('pilotKg', number)} /></Field>
            <Field label="Instructor" unit="kg" id="instructorKg" error={errors.instructorKg}><input type="number" step="any" {...form.register('instructorKg', number)} /></Field>
            <Field label="Fuel" unit="L" id="fuelL" error={errors.fuelL}><input type="number" step="any" {...form.register('fuelL', number)} /></Field>
            <Field label="Baggage" unit="kg" id="baggageKg" error={errors.baggageKg}><input type="number" step="any" {...form.register('baggageKg', number)} /></Field>
            <Field label="Gust additive" id="gustSchool"><select {...form.register('gustSchool')}><option value="half">half the spread</option><option value="full">the full spread</option><option value="none">none</option></select></Field>
            <Field label="Landings meant" id="intended"><select {...form.register('intended')}>{(sheet.gear.layout === 'tailwheel' ? (['three-point', 'mains-first'] as const) : (['mains-first'] as const)).map((a) => <option key={a} value={a}>{say(a)}</option>)}</select></Field>
            <Field label="Your own crosswind limit" unit="kt" id="instructorLimit" error={errors.instructorLimit}><input inputMode="numeric" {...form.register('instructorLimit')} /></Field>
            {sheet.flapSteps.length > 1 ? <Field label="Flap at most" id="maxFlap"><select {...form.register('maxFlap')}><option value="">as the sheet and the wind say</option>{sheet.flapSteps.map((f) => <option key={f} value={f}>{f}°</option>)}</select></Field> : null}
            <div style={{ gridColumn: 'span 2' }}><Field label="One thing to think of" id="focus" error={errors.focus} hint="Shown in the cockpit."><input {...form.register('focus')} /></Field></div>
          </div>
          </details>
        </Panel>
        <BriefPanels {...props} choices={live} result={result} />
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
    const timer = setInterval(() => setNow(new Date(Date.parse(serverNow) + (performance.now() - started)).toISOString()), 30_000);
    return () => clearInterval(timer);
  }, [serverNow]);
  return now;
}
