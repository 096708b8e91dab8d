'use client';
import { useState } from 'react';
import { simulatedFailureAllowed } from '@/core/assess';
import { type StopHere, heightOn, stopHere } from '@/core/circuit';
import { STOP_LEGS, type StopLeg } from '@/domain/airwork';
import type { AirworkDetail } from '@/domain/capture';
import type { ViewProps } from './view';
import { Stepper, Whose, Words } from './parts';

const WHY = {
  'limit-not-known': 'the limits of this aeroplane are not known here',
  'height-not-known': 'give the height',
  'below-the-floor': 'below the floor for any simulated failure',
  'speed-not-known': 'give the speed',
  'below-vsse': 'below Vsse',
  'above-half-vmca-on-the-ground': 'above half Vmca on the ground',
  'feather-below-3000': 'feathering below 3000 ft',
} as const;

/**
 * Engine failure now: where? Asked where the rules of simulated failures let it be asked; the model's answer is shown only
 * after the pilot's.
 */
export function Surprise({
  pack,
  runwayEnd,
  wind,
  save,
}: ViewProps & { save: (d: AirworkDetail, level: number) => void }) {
  const [leg, setLeg] = useState<StopLeg | null>(null);
  const [heightFt, setHeight] = useState<number | null>(null);
  const [speed, setSpeed] = useState<number | null>(null);
  const [answer, setAnswer] = useState<string | null>(null);
  const field = pack.reach;
  if (!field)
    return (
      <p className="mb-0">
        This device was prepared before gliding range was part of it. Prepare it again on the ground.
      </p>
    );
  const blowing = wind
    ? { fromMagneticDeg: wind.fromDegMag, kt: wind.kt }
    : { fromMagneticDeg: field.windFromTrueDeg - field.variationDeg, kt: field.windKt };
  const { failures } = pack;
  if (!failures) return null;
  const rule = simulatedFailureAllowed({
    heightAglFt: heightFt,
    houseFloorFt: failures.floorFt,
    twin: failures.twin,
    speed,
    airborne: true,
    realFeather: false,
  });
  const model: StopHere | null =
    leg && heightFt !== null && rule.allowed ? stopHere(field, runwayEnd, blowing, leg, heightFt) : null;
  const pick = (next: StopLeg | null) => {
    setLeg(next);
    setAnswer(null);
    const h = next ? heightOn(field, runwayEnd, blowing, next) : null;
    setHeight(h === null ? null : Math.max(100, Math.round(h / 50) * 50));
  };
  const any = () => {
    const bytes = crypto.getRandomValues(new Uint8Array(1));
    pick(STOP_LEGS[(bytes[0] ?? 0) % STOP_LEGS.length] ?? 'downwind');
  };
  const ends = model?.ends.map((e) => e.id) ?? [];
  const name = (a: string) => (a === 'ahead' ? 'ahead, on what is left' : a === 'field' ? 'a field' : a);
  return (
    <>
      <Words title="Position" options={STOP_LEGS} now={leg} choose={pick} columns={5} />
      <button type="button" className="tap" style={{ width: 'auto' }} onClick={any}>
        Pick a place for me and wait
      </button>
      {leg ? (
        <div className="pair">
          <Stepper
            title="Height above the aerodrome"
            unit="ft"
            start={500}
            step={50}
            least={0}
            most={5000}
            now={heightFt}
            set={(v) => {
              setHeight(v);
              setAnswer(null);
            }}
          />
          {failures.twin ? (
            <Stepper
              title="Speed"
              unit={pack.unit}
              start={failures.twin.vsse + 10}
              step={1}
              least={0}
              most={300}
              now={speed}
              set={setSpeed}
            />
          ) : null}
        </div>
      ) : null}
      {leg && !rule.allowed ? (
        <p role="status" className="mb-0">
          <strong>Not asked here:</strong> {rule.reasons.map((r) => WHY[r]).join('; ')}. Least {rule.floorFt} ft above
          ground ({failures.source}){failures.twin ? `, ${failures.twin.vsse} ${pack.unit} or more` : ''}.
        </p>
      ) : null}
      {leg && rule.allowed && !model ? (
        <p role="status" className="mb-0">
          The circuit cannot be flown by the sheet’s numbers in this wind: no answer to compare with.
        </p>
      ) : null}
      {model ? (
        <Words
          title="Engine failure now: where? The pilot says"
          options={['ahead', ...ends, 'field']}
          now={answer}
          choose={setAnswer}
          columns={4}
          name={name}
        />
      ) : null}
      {model && answer ? (
        <>
          <p role="status" className="mb-0">
            <strong>
              {answer === model.answer ? 'As the model.' : `Model answer: ${name(model.answer)}.`}
              {model.verdict === 'doubtful' ? ' Doubtful: less than 200 ft in hand.' : ''}
            </strong>{' '}
            {model.ahead
              ? `Straight ahead fits, ${Math.floor(model.marginFt ?? 0)} ft to spare.`
              : model.ends
                  .map(
                    (e) =>
                      `${e.id} ${e.reason === 'turn-back-below-house-height' ? 'a turn back below the school height' : e.marginFt === null ? 'no way there' : `${Math.round(Math.abs(e.marginFt))} ft ${e.marginFt < 0 ? 'short' : 'in hand'}`}`,
                  )
                  .join(', ')}
            .{' '}
            {model.held.flapDeg > 0 || model.held.gear === 'down'
              ? `With ${[model.held.flapDeg > 0 ? `flap ${model.held.flapDeg}°` : '', model.held.gear === 'down' ? 'gear down' : ''].filter(Boolean).join(' and ')} as held there${model.retracted ? `; retracted at once ${model.retracted.bestId ?? 'still no runway'}` : ''}. `
              : ''}
            {model.oneEngineFpm === null
              ? ''
              : `That is with both engines stopped; on one, at Vyse, clean and feathered, it ${model.oneEngineFpm >= 0 ? `climbs ${Math.floor(model.oneEngineFpm)}` : `descends ${Math.ceil(-model.oneEngineFpm)}`} ft/min. `}
            A left-hand circuit at the sheet’s numbers, wind{' '}
            {String(Math.round(blowing.fromMagneticDeg)).padStart(3, '0')}/{Math.round(blowing.kt)} kt{' '}
            {wind ? 'as logged' : 'as briefed'}, {field.reactionS} s to react. A model for discussion, never a
            permission.
          </p>
          <Whose
            title="Who answered"
            now={null}
            choose={(level) =>
              save(
                {
                  form: 'surprise',
                  leg: model.leg,
                  heightFt: model.heightFt,
                  answer,
                  model: model.answer,
                  verdict: model.verdict,
                  marginFt: model.marginFt === null ? null : Math.round(model.marginFt),
                },
                level,
              )
            }
          />
        </>
      ) : null}
    </>
  );
}
