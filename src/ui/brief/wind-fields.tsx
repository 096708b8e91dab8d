'use client';
import FormCheck from 'react-bootstrap/FormCheck';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormCheckLabel from 'react-bootstrap/FormCheckLabel';
import Button from 'react-bootstrap/Button';
import type { FieldErrors, UseFormReturn } from 'react-hook-form';
import type { BriefValues, ReportAir, StationNow } from './values';
import type { WindFields } from './wind-entry';
import { WEATHER_SAID } from '@/domain/weather';
import { Field } from '../shared/field';

/** The report of the school's address, or of the simulated station of the demo; where there is none, why. */
function StationReport({ station, take }: { station: StationNow; take: (text: string) => void }) {
  const { report, problem, source } = station;
  return (
    <>
      {report ? (
        <Button variant="link" size="sm" className="p-0 align-baseline" onClick={() => take(report.text)}>
          Take the {source === 'simulated' ? 'simulated station' : 'station'}’s:{' '}
          {/\d{6}Z/.exec(report.text)?.[0] ?? report.text}
        </Button>
      ) : source === 'none' ? (
        'No weather address is set in Settings.'
      ) : null}
      {problem ? <span className="d-block">{WEATHER_SAID[problem]}</span> : null}
    </>
  );
}

/** Where the wind of the brief comes from: a report, or heard and seen. */
export function WindFieldset({
  ident,
  air,
  errors,
  form,
  station,
  v,
  windMessage,
}: {
  /** Code of the aerodrome the lesson is flown at. */
  ident: string;
  air: ReportAir;
  errors: FieldErrors<BriefValues>;
  form: UseFormReturn<BriefValues>;
  station: StationNow;
  v: BriefValues;
  windMessage: (path: keyof WindFields) => { message: string } | undefined;
}) {
  return (
    <div style={{ gridColumn: 'span 2' }}>
      <div role="radiogroup" aria-label="Wind from" className="d-flex gap-3 mb-1">
        {(['report', 'typed'] as const).map((k) => (
          <FormCheck key={k}>
            <FormCheckInput type="radio" id={`wind-${k}`} value={k} {...form.register('windKind')} />
            <FormCheckLabel htmlFor={`wind-${k}`}>
              {k === 'report' ? 'Wind from a report' : 'Wind observed'}
            </FormCheckLabel>
          </FormCheck>
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
              <StationReport station={station} take={(text) => form.setValue('report', text)} />
            </>
          }
        >
          <input
            className="code-face"
            placeholder={`${ident} 241420Z 26011G17KT CAVOK 18/07 Q1016`}
            {...form.register('report')}
          />
        </Field>
      ) : null}
      {v.windKind === 'report' && air.station !== null && air.station !== ident ? (
        <p className="mb-0 small" role="note">
          This is the report of {air.station}; the lesson is flown at {ident}.
        </p>
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
          <Field label="At" unit="local" id="typedAt" error={windMessage('typedAt')}>
            <input className="mono" placeholder="now" {...form.register('typedAt')} />
          </Field>
        </div>
      )}
    </div>
  );
}
