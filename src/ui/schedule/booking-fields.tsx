import type { UseFormRegister } from 'react-hook-form';
import { list } from '@/core/format';
import { BOOKING_KINDS, BOOKING_NAME, type BookingKind } from '@/domain/schedule';
import { say } from '@/domain/words';
import { Field } from '../shared/field';
import { Picker } from '../shared/picker';
import { DateInput, TimeInput } from '../shared/when-input';
import type { BookingValues } from './booking-values';
import type { FormFacts } from './form-facts';

/** Who, in what and when. A lesson names its checkout, a hire its passengers and runway. */
export function BookingFields({
  facts,
  kind,
  register,
  error,
}: {
  facts: FormFacts;
  kind: BookingKind;
  register: UseFormRegister<BookingValues>;
  error: (name: keyof BookingValues) => { message?: string } | undefined;
}) {
  const kinds = BOOKING_KINDS.filter((k) => facts.pilotOnly === null || k !== 'other');
  const pilots = facts.people.filter(
    (x) => x.pilotId !== null && (facts.pilotOnly === null || x.pilotId === facts.pilotOnly),
  );
  const nobody = kind === 'other' ? 'none' : 'Choose';
  return (
    <div className="two">
      <Field label="What" id="kind" error={error('kind')}>
        <select {...register('kind')}>
          {kinds.map((k) => (
            <option key={k} value={k}>
              {BOOKING_NAME[k]}
            </option>
          ))}
        </select>
      </Field>
      {kind === 'lesson' ? (
        <Field label="Checkout" id="checkoutId" error={error('checkoutId')}>
          <Picker
            {...register('checkoutId')}
            empty="Choose"
            options={facts.checkouts.map((c) => ({
              value: c.id,
              label: `${c.pilotName}, ${c.registration}, ${list(c.goals.map(say))}`,
            }))}
          />
        </Field>
      ) : (
        <Field label="Pilot" id="pilotId" error={error('pilotId')}>
          <Picker
            {...register('pilotId')}
            empty="Choose"
            options={pilots.map((x) => ({ value: x.pilotId ?? '', label: x.name }))}
          />
        </Field>
      )}
      {kind === 'lesson' || kind === 'other' ? (
        <Field label="Instructor" id="instructorId" error={error('instructorId')}>
          <select {...register('instructorId')}>
            <option value="">{nobody}</option>
            {facts.people
              .filter((x) => x.instructor)
              .map((x) => (
                <option key={x.key} value={x.userId ?? ''}>
                  {x.name}
                </option>
              ))}
          </select>
        </Field>
      ) : null}
      <Field label="Aeroplane" id="airframeId" error={error('airframeId')}>
        <Picker
          {...register('airframeId')}
          empty={nobody}
          options={facts.airframes.map((a) => ({
            value: a.id,
            label: `${a.registration} ${a.typeName}${a.down ? ' (out of service)' : ''}`,
          }))}
        />
      </Field>
      <Field label="Day" id="date" error={error('date')}>
        <DateInput min={facts.today} {...register('date')} />
      </Field>
      <Field label="Start, local" id="start" error={error('start')}>
        <TimeInput stepMin={facts.stepMin} {...register('start')} />
      </Field>
      <Field label="Length" unit="min" id="minutes" error={error('minutes')} hint="empty: as past lessons on this type">
        <input inputMode="numeric" {...register('minutes')} />
      </Field>
      {kind === 'hire' ? (
        <Field label="Passengers" id="passengers" error={error('passengers')}>
          <input inputMode="numeric" {...register('passengers')} />
        </Field>
      ) : null}
      {kind === 'hire' || kind === 'currency' ? (
        <Field label="Runway" id="surface" error={error('surface')}>
          <select {...register('surface')}>
            {['any', 'asphalt', 'grass', 'water'].map((s) => (
              <option key={s} value={s}>
                {s}
              </option>
            ))}
          </select>
        </Field>
      ) : null}
      {facts.places.length > 1 ? (
        <Field label="Flown at" id="aerodrome" error={error('aerodrome')}>
          <select {...register('aerodrome')}>
            {facts.places.map((p, i) => (
              <option key={p.ident} value={i === 0 ? '' : p.ident}>
                {p.name} {p.ident}
              </option>
            ))}
          </select>
        </Field>
      ) : null}
      {kind === 'lesson' ? (
        <Field label="Aim of the lesson" id="book-aim" error={error('aim')} hint="It opens the brief.">
          <input maxLength={120} {...register('aim')} />
        </Field>
      ) : null}
      <Field label="Note" id="book-note" error={error('note')}>
        <input {...register('note')} />
      </Field>
    </div>
  );
}
