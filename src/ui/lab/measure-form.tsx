'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { type SightSheet, type Walk, missingMeasures, profileFromWalk } from '@/core/sightpicture';
import { fixed } from '@/core/format';
import type { Sourced } from '@/domain/sheet';
import { SIGHT_ATTITUDES, type SightAttitude, say } from '@/domain/words';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, useDraft } from '../shared/forms';
import { useTap } from '../shared/use-tap';
import { Panel, Problems } from '../shared/parts';

export interface MeasureFacts {
  pilotId: string | null;
  version: number;
  action: ((form: unknown) => Promise<ActionResult<{ version: number }>>) | null;
}
const AZIMUTHS = [-90, -60, -45, -30, -20, -10, 0, 10, 20, 30, 45, 60, 90];
type Key = `d${string}` | `g${string}` | `a${string}` | 'eye' | 'nose' | 'ground' | 'lateral' | 'by';
type Values = Record<Key, string>;
const num = (t: string | undefined): number | null =>
  t === undefined || t.trim() === '' || !Number.isFinite(Number(t.replace(',', '.')))
    ? null
    : Number(t.replace(',', '.'));

/**
 * Which measurements are missing, how they are taken, and fields for them. The picture follows at once; the chief keeps
 * them on the sheet.
 */
export function MeasureForm({
  sheet,
  facts,
  drawWith,
}: {
  sheet: SightSheet;
  facts: MeasureFacts;
  drawWith: (sheet: SightSheet) => void;
}) {
  const router = useRouter();
  const g = sheet.geometry;
  const form = useForm<Values>({
    defaultValues: {
      eye: g.eyeHeightM ? String(g.eyeHeightM.value) : '',
      nose: g.noseToEyeM ? String(g.noseToEyeM.value) : '',
      ground: g.groundPitchDeg ? String(g.groundPitchDeg.value) : '',
      lateral: '0',
      by: '',
    } as Values,
  });
  const draft = useDraft(form, `measure:${sheet.code}`);
  const { tap } = useTap();
  const [trouble, setTrouble] = useState<ActionProblem[]>([]);
  const v = form.watch();
  const missing = missingMeasures(sheet);
  const attitudes: SightAttitude[] = SIGHT_ATTITUDES.filter(
    (a) => a !== 'three-point' || sheet.gear.layout === 'tailwheel',
  );
  const finals = sheet.approach.filter((x) => x.finalGate);
  const measured = (value: number): Sourced => ({
    value,
    source: 'measured',
    ref: v.by.trim() || 'measured from the seat',
  });
  const problems: ActionProblem[] = [];
  const need = (key: Key, label: string, low: number, high: number): number => {
    const n = num(v[key]);
    if (n === null || n < low || n > high)
      problems.push({ path: key, message: `${label}: a number from ${low} to ${high}.` });
    return n ?? 0;
  };
  const build = (): SightSheet | null => {
    problems.length = 0;
    const eyeHeightM = need('eye', 'Eye above ground in metres', 0.5, 5);
    const noseToEyeM = need('nose', 'Nose to eye in metres', 0.3, 8);
    const groundPitchDeg = need('ground', 'Attitude on three wheels in degrees', -5, 25);
    const lateral = need('lateral', 'Eye beside the centreline in metres', -1, 1);
    const walks: Walk[] = AZIMUTHS.flatMap((azimuthDeg) => {
      const d = num(v[`d${azimuthDeg}`]);
      return d === null || d <= 0 ? [] : [{ azimuthDeg, distanceM: d }];
    });
    if (!walks.some((w) => w.azimuthDeg === 0) || walks.length < 3)
      problems.push({
        path: 'd0',
        message: 'Walk out straight ahead and to at least two sides: metres from below the eye to the shoe.',
      });
    const pitches = finals.map((x) => ({
      name: x.name,
      pitchDeg: need(`g${x.name}`, `Pitch at ${x.name} in degrees`, -15, 20),
    }));
    const chosen = attitudes.flatMap((a) => {
      const p = num(v[`a${a}`]);
      return p === null ? [] : [{ name: a, pitchDeg: measured(p), bankDeg: 0, yawDeg: 0 }];
    });
    if (problems.length > 0) return null;
    return {
      ...sheet,
      geometry: {
        ...g,
        eyeHeightM: measured(eyeHeightM),
        noseToEyeM: measured(noseToEyeM),
        groundPitchDeg: measured(groundPitchDeg),
      },
      approach: sheet.approach.map((x) => {
        const p = pitches.find((q) => q.name === x.name);
        return p ? { ...x, pitchDeg: measured(p.pitchDeg) } : x;
      }),
      sight: {
        profile: profileFromWalk({ eyeHeightM, groundPitchDeg, walks }).map((p) => ({
          azimuthDeg: Number(p.azimuthDeg.toFixed(1)),
          depressionDeg: Number(p.depressionDeg.toFixed(1)),
        })),
        source: 'measured',
        ref: v.by.trim() || 'measured from the seat',
        eyeLateralM: measured(lateral),
        attitudes: chosen,
        parts: [],
        references: [],
      },
    };
  };
  const preview = () => {
    const built = build();
    setTrouble([...problems]);
    if (built) drawWith(built);
  };
  const keep = form.handleSubmit(async () => {
    const built = build();
    setTrouble([...problems]);
    if (!built?.sight || !facts.action) return;
    const { geometry, sight } = built;
    await tap(
      () =>
        facts.action?.({
          code: sheet.code,
          baseVersion: facts.version,
          reason: 'View from the seat measured',
          eyeHeightM: geometry.eyeHeightM,
          noseToEyeM: geometry.noseToEyeM,
          groundPitchDeg: geometry.groundPitchDeg,
          sight,
          gatePitch: built.approach.map((x) => ({ name: x.name, pitchDeg: x.pitchDeg })),
        }) ?? Promise.resolve({ ok: false as const, problems: [] }),
      {
        refused: ({ problems: said }) => setTrouble(said),
        done: () => {
          draft.clear();
          drawWith(built);
          router.refresh();
        },
      },
    );
  });
  const wrong = (key: Key) => {
    const p = trouble.find((t) => t.path === key);
    return p ? { message: p.message } : undefined;
  };
  const walked = profileFromWalk({
    eyeHeightM: num(v.eye) ?? 0,
    groundPitchDeg: num(v.ground) ?? 0,
    walks: AZIMUTHS.flatMap((a) => {
      const d = num(v[`d${a}`]);
      return d && d > 0 ? [{ azimuthDeg: a, distanceM: d }] : [];
    }),
  });
  return (
    <Panel title={`Measure the view of the ${sheet.name}`}>
      <p className="mb-2">Not on the sheet yet. What to measure, and how:</p>
      <dl className="measures">
        {missing.map((m) => (
          <div key={m.field}>
            <dt>{m.what}</dt>
            <dd>{m.how}</dd>
          </div>
        ))}
      </dl>
      <form onSubmit={(e) => void keep(e)} noValidate aria-label="Measurements">
        <Problems problems={trouble.filter((t) => t.path === '')} title="Not saved" />
        <div className="brief-form">
          <Field label="Eye above ground" unit="m" id="m-eye" error={wrong('eye')}>
            <input inputMode="decimal" {...form.register('eye')} />
          </Field>
          <Field label="Nose to eye" unit="m" id="m-nose" error={wrong('nose')}>
            <input inputMode="decimal" {...form.register('nose')} />
          </Field>
          <Field label="Attitude on three wheels" unit="°" id="m-ground" error={wrong('ground')}>
            <input inputMode="decimal" {...form.register('ground')} />
          </Field>
          <Field label="Eye right of the centreline" unit="m" id="m-lateral" error={wrong('lateral')}>
            <input inputMode="decimal" {...form.register('lateral')} />
          </Field>
          {finals.map((x) => (
            <Field key={x.name} label={`Pitch at ${x.name}`} unit="°" id={`m-g${x.name}`} error={wrong(`g${x.name}`)}>
              <input inputMode="decimal" {...form.register(`g${x.name}`)} />
            </Field>
          ))}
          {attitudes.map((a) => (
            <Field key={a} label={`Pitch, ${say(a)}`} unit="°" id={`m-a${a}`}>
              <input inputMode="decimal" placeholder="if known" {...form.register(`a${a}`)} />
            </Field>
          ))}
        </div>
        <fieldset className="mt-3">
          <legend className="form-label fw-bold">
            Nearest ground seen, metres from below the eye, by direction (left negative)
          </legend>
          <div className="walks">
            {AZIMUTHS.map((a) => (
              <Field key={a} label={`${a}°`} id={`m-d${a}`} error={wrong(`d${a}`)}>
                <input inputMode="decimal" {...form.register(`d${a}`)} />
              </Field>
            ))}
          </div>
        </fieldset>
        {walked.length > 0 ? (
          <p className="small mb-0 mt-2">
            In body axes: {walked.map((p) => `${fixed(p.azimuthDeg)}° ${fixed(p.depressionDeg, 1)}° down`).join(', ')}.
          </p>
        ) : null}
        <div className="mt-2" style={{ maxWidth: 420 }}>
          <Field label="Measured by, when, how" id="m-by">
            <input placeholder="tape and level, 25 Nov 2026" {...form.register('by')} />
          </Field>
        </div>
        <div className="d-flex gap-2 mt-2 align-items-center flex-wrap">
          <Button variant="outline-primary" onClick={preview}>
            Plot
          </Button>
          {facts.action ? (
            <Button type="submit" variant="primary" disabled={form.formState.isSubmitting}>
              Save on the sheet
            </Button>
          ) : (
            <span className="soft small">
              The chief saves measurements on the sheet. Plotted here they stay on this page, and what you typed stays
              in this tab.
            </span>
          )}
        </div>
      </form>
    </Panel>
  );
}
