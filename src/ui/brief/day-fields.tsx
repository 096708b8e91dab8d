'use client';
import FormCheck from 'react-bootstrap/FormCheck';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormCheckLabel from 'react-bootstrap/FormCheckLabel';
import type { FieldErrors, UseFormReturn } from 'react-hook-form';
import type { BriefValues, ReportAir } from './values';
import { fixed } from '@/core/format';
import type { TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import { Field } from '../shared/field';

const number = { valueAsNumber: true } as const;

/** Masses, fuel and the time left. */
export function LoadingFields({
  errors,
  form,
  sheet,
}: {
  errors: FieldErrors<BriefValues>;
  form: UseFormReturn<BriefValues>;
  sheet: TypeSheet;
}) {
  return (
    <>
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
      <Field label="Time left in booking" unit="min" id="bookingMin" error={errors.bookingMin}>
        <input type="number" step="any" {...form.register('bookingMin', number)} />
      </Field>
    </>
  );
}

/** The air of the day, taken from the report where nothing is typed, and what else is so. */
export function AirFields({
  air,
  errors,
  form,
  water,
}: {
  air: ReportAir;
  /** A lane is always wet. */
  water: boolean;
  errors: FieldErrors<BriefValues>;
  form: UseFormReturn<BriefValues>;
}) {
  return (
    <>
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
          [...(water ? [] : [['wet', 'runway wet'] as const]), ['night', 'night'], ['two', 'two aeroplanes']] as const
        ).map(([name, label]) => (
          <FormCheck key={name}>
            <FormCheckInput type="checkbox" id={name} {...form.register(name)} />
            <FormCheckLabel htmlFor={name}>{label}</FormCheckLabel>
          </FormCheck>
        ))}
      </div>
    </>
  );
}

/** How it is flown: additive, attitude, limits of this lesson. */
export function HowFields({
  errors,
  form,
  sheet,
}: {
  errors: FieldErrors<BriefValues>;
  form: UseFormReturn<BriefValues>;
  sheet: TypeSheet;
}) {
  return (
    <>
      <Field label="Gust additive" id="gustSchool">
        <select {...form.register('gustSchool')}>
          <option value="half">half the spread</option>
          <option value="full">the full spread</option>
          <option value="none">none</option>
        </select>
      </Field>
      {sheet.gear.layout === 'tailwheel' ? (
        <Field label="Intended landings" id="intended">
          <select {...form.register('intended')}>
            {(['three-point', 'mains-first'] as const).map((a) => (
              <option key={a} value={a}>
                {say(a)}
              </option>
            ))}
          </select>
        </Field>
      ) : null}
      <Field label="Your own crosswind limit" unit="kt" id="instructorLimit" error={errors.instructorLimit}>
        <input inputMode="numeric" {...form.register('instructorLimit')} />
      </Field>
      {sheet.flapSteps.length > 1 ? (
        <Field label="Maximum flap" id="maxFlap">
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
    </>
  );
}

/** The other aeroplane of a flight of two. */
export function SecondAeroplaneFields({
  errors,
  form,
}: {
  errors: FieldErrors<BriefValues>;
  form: UseFormReturn<BriefValues>;
}) {
  return (
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
      <Field label="Rendezvous time" unit="local" id="secondAt">
        <input placeholder="10:30" {...form.register('secondAt')} />
      </Field>
      <Field label="Break interval" unit="s" id="secondBreak" error={errors.secondBreak}>
        <input inputMode="decimal" {...form.register('secondBreak')} />
      </Field>
    </>
  );
}
