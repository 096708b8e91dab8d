'use client';
import { Plus, Trash2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { useFieldArray } from 'react-hook-form';
import { PACKS, PACK_NAME, type PackId } from '@/domain/words';
import { oppositeEnd, STRIPS_APART_M } from '@/domain/painted';
import { useActionForm } from '../shared/action-form';
import { AerodromeDrawing } from '../shared/aerodrome-drawing';
import { Field } from '../shared/field';
import { type ActionResult, typedNumber, typedOrNull } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';

interface End {
  circuit: string;
  slopeLightsDeg: string;
  slopeLightsM: string;
  landmark: string;
  landmarkM: string;
}
const END: End = { circuit: 'left', slopeLightsDeg: '', slopeLightsM: '', landmark: '', landmarkM: '' };
interface Strip {
  ends: End[];
  ident: string;
  trueBearingDeg: string;
  lengthM: string;
  widthM: string;
  surface: string;
  firstFt: string;
  secondFt: string;
}
const STRIP: Strip = {
  ends: [END, END],
  ident: '',
  trueBearingDeg: '',
  lengthM: '',
  widthM: '',
  surface: 'asphalt',
  firstFt: '',
  secondFt: '',
};

/** What was typed before there were ends is still right. */
const endsOf = (r: { ends?: End[] }): End[] => r.ends ?? [END, END];
const markOf = (e: End | undefined) => {
  const alongM = typedNumber(e?.landmarkM ?? '');
  return e && e.landmark.trim() !== '' && Number.isFinite(alongM) ? { name: e.landmark, alongM } : null;
};
const ENDS = ['lower', 'other'] as const;
const otherEnd = (ident: string | undefined): string =>
  /^\d\d[LRCW]?$/.test(ident ?? '') ? oppositeEnd(ident ?? '') : 'Other end';

/** Where the school flies, drawn while it is typed: its first aerodrome with what the school is, or another one. */
export function PlaceForm({
  save,
  pack,
  zones,
  children,
}: {
  save: (form: unknown) => Promise<ActionResult>;
  /** The rules the school begins with; null = another aerodrome of a school that is there. */
  pack: PackId | null;
  zones: string[];
  /** Shown beside the form, under the drawing. */
  children?: React.ReactNode;
}) {
  const first = pack !== null;
  const router = useRouter();
  const f = useActionForm({
    draft: first ? 'set-up-place' : 'another-place',
    schema: async () => {
      const { AerodromeForm, PlaceForm: FirstForm } = await import('@/domain/set-up');
      return first ? FirstForm : AerodromeForm;
    },
    defaults: {
      school: '',
      ident: '',
      name: '',
      homePack: (pack ?? '') as string,
      timeZone: '',
      latitudeDeg: '',
      longitudeDeg: '',
      elevationFt: '',
      circuitHeightFt: '1000',
      variationDeg: '',
      runways: [STRIP],
    },
    also: ['runways', 'timeZone', 'homePack'],
    as: (v) => ({
      ...v,
      latitudeDeg: typedNumber(v.latitudeDeg),
      longitudeDeg: typedNumber(v.longitudeDeg),
      elevationFt: typedNumber(v.elevationFt),
      circuitHeightFt: typedNumber(v.circuitHeightFt),
      variationDeg: typedOrNull(v.variationDeg),
      runways: v.runways.map((r: Strip) => ({
        ...r,
        trueBearingDeg: typedNumber(r.trueBearingDeg),
        lengthM: typedNumber(r.lengthM),
        widthM: typedNumber(r.widthM),
        firstFt: typedOrNull(r.firstFt),
        secondFt: typedOrNull(r.secondFt),
        ends: endsOf(r).map((e) => ({
          ...e,
          slopeLightsDeg: typedOrNull(e.slopeLightsDeg),
          slopeLightsM: typedOrNull(e.slopeLightsM),
          landmarkM: typedOrNull(e.landmarkM),
        })),
      })),
    }),
    action: save,
    done: () => (first ? router.refresh() : router.push('/settings#aerodromes')),
  });
  const strips = useFieldArray({ control: f.form.control, name: 'runways' });
  const v = f.form.watch();
  return (
    <div className="grid g-2-1" style={{ alignItems: 'start' }}>
      <Panel title={first ? 'School and aerodrome' : 'Another aerodrome'}>
        <form {...f.props} className="d-grid gap-3" aria-label={first ? 'School and aerodrome' : 'Another aerodrome'}>
          <Problems problems={f.problems} title="Not saved" />
          <div className="place-fields">
            {first ? (
              <Field label="Name of the school" id="p-school" error={f.error('school')}>
                <input {...f.register('school')} />
              </Field>
            ) : null}
            <Field label="Name of the aerodrome" id="p-name" error={f.error('name')}>
              <input {...f.register('name')} />
            </Field>
            <Field label="Identifier" id="p-ident" error={f.error('ident')} hint="as in its METAR">
              <input className="code-face" {...f.register('ident')} />
            </Field>
            {first ? (
              <Field label="Rules" id="p-pack" error={f.error('homePack')} hint="the law of your country">
                <select {...f.register('homePack')}>
                  {PACKS.map((p) => (
                    <option key={p} value={p}>
                      {PACK_NAME[p]}
                    </option>
                  ))}
                </select>
              </Field>
            ) : null}
            <Field label="Time zone" id="p-zone" error={f.error('timeZone')}>
              <select {...f.register('timeZone')}>
                <option value="">choose</option>
                {zones.map((z) => (
                  <option key={z}>{z}</option>
                ))}
              </select>
            </Field>
            <Field label="Latitude" unit="°, north positive" id="p-lat" error={f.error('latitudeDeg')}>
              <input inputMode="text" {...f.register('latitudeDeg')} />
            </Field>
            <Field label="Longitude" unit="°, east positive" id="p-lon" error={f.error('longitudeDeg')}>
              <input inputMode="text" {...f.register('longitudeDeg')} />
            </Field>
            <Field label="Elevation" unit="ft" id="p-elevation" error={f.error('elevationFt')}>
              <input inputMode="numeric" {...f.register('elevationFt')} />
            </Field>
            <Field label="Circuit height" unit="ft above it" id="p-circuit" error={f.error('circuitHeightFt')}>
              <input inputMode="numeric" {...f.register('circuitHeightFt')} />
            </Field>
            <Field
              label="Magnetic variation"
              unit="°, east positive"
              id="p-variation"
              error={f.error('variationDeg')}
              hint="empty: from the position, by the World Magnetic Model"
            >
              <input inputMode="text" {...f.register('variationDeg')} />
            </Field>
          </div>
          <fieldset>
            <legend>Runways and water lanes</legend>
            {strips.fields.map((strip, i) => (
              <div key={strip.id} className="strip-fields" role="group" aria-label={`Runway ${i + 1}`}>
                <Field label="Lower end" id={`r-${i}-ident`} error={f.error(`runways.${i}.ident`)}>
                  <input className="code-face" placeholder="04" {...f.register(`runways.${i}.ident`)} />
                </Field>
                <Field
                  label="Its bearing"
                  unit="° true"
                  id={`r-${i}-bearing`}
                  error={f.error(`runways.${i}.trueBearingDeg`)}
                >
                  <input inputMode="decimal" {...f.register(`runways.${i}.trueBearingDeg`)} />
                </Field>
                <Field label="Length" unit="m" id={`r-${i}-length`} error={f.error(`runways.${i}.lengthM`)}>
                  <input inputMode="decimal" {...f.register(`runways.${i}.lengthM`)} />
                </Field>
                <Field label="Width" unit="m" id={`r-${i}-width`} error={f.error(`runways.${i}.widthM`)}>
                  <input inputMode="decimal" {...f.register(`runways.${i}.widthM`)} />
                </Field>
                <Field label="Surface" id={`r-${i}-surface`} error={f.error(`runways.${i}.surface`)}>
                  <select {...f.register(`runways.${i}.surface`)}>
                    <option value="asphalt">asphalt</option>
                    <option value="grass">grass</option>
                    <option value="water">water</option>
                  </select>
                </Field>
                <Field
                  label="Elevation, lower end"
                  unit="ft"
                  id={`r-${i}-first`}
                  error={f.error(`runways.${i}.firstFt`)}
                >
                  <input inputMode="numeric" {...f.register(`runways.${i}.firstFt`)} />
                </Field>
                <Field
                  label="Elevation, other end"
                  unit="ft"
                  id={`r-${i}-second`}
                  error={f.error(`runways.${i}.secondFt`)}
                >
                  <input inputMode="numeric" {...f.register(`runways.${i}.secondFt`)} />
                </Field>
                <details
                  className="strip-ends"
                  open={ENDS.some((_, e) => f.error(`runways.${i}.ends.${e}`) !== undefined)}
                >
                  <summary>Circuit, lights, landmarks</summary>
                  {ENDS.map((name, e) => (
                    <div key={name} className="strip-end" role="group" aria-label={`Runway ${i + 1}, ${name} end`}>
                      <strong className="small">
                        {name === 'lower' ? v.runways[i]?.ident || 'Lower end' : otherEnd(v.runways[i]?.ident)}
                      </strong>
                      <Field label="Circuit" id={`r-${i}-${e}-circuit`}>
                        <select {...f.register(`runways.${i}.ends.${e}.circuit`)}>
                          <option value="left">to the left</option>
                          <option value="right">to the right</option>
                        </select>
                      </Field>
                      <Field
                        label="Slope lights"
                        unit="°"
                        id={`r-${i}-${e}-lights`}
                        error={f.error(`runways.${i}.ends.${e}.slopeLightsDeg`)}
                      >
                        <input inputMode="decimal" {...f.register(`runways.${i}.ends.${e}.slopeLightsDeg`)} />
                      </Field>
                      <Field
                        label="past the threshold"
                        unit="m"
                        id={`r-${i}-${e}-lights-m`}
                        error={f.error(`runways.${i}.ends.${e}.slopeLightsM`)}
                      >
                        <input inputMode="decimal" {...f.register(`runways.${i}.ends.${e}.slopeLightsM`)} />
                      </Field>
                      <Field
                        label="Go around if not down by"
                        id={`r-${i}-${e}-landmark`}
                        error={f.error(`runways.${i}.ends.${e}.landmark`)}
                      >
                        <input placeholder="a thing to see" {...f.register(`runways.${i}.ends.${e}.landmark`)} />
                      </Field>
                      <Field
                        label="past the threshold"
                        unit="m"
                        id={`r-${i}-${e}-landmark-m`}
                        error={f.error(`runways.${i}.ends.${e}.landmarkM`)}
                      >
                        <input inputMode="decimal" {...f.register(`runways.${i}.ends.${e}.landmarkM`)} />
                      </Field>
                    </div>
                  ))}
                </details>
                {strips.fields.length > 1 ? (
                  <Button
                    variant="outline-primary"
                    aria-label={`Remove runway ${i + 1}`}
                    className="align-self-end justify-self-start"
                    onClick={() => strips.remove(i)}
                  >
                    <Trash2 size={16} aria-hidden />
                  </Button>
                ) : null}
              </div>
            ))}
            <Button variant="outline-primary" size="sm" onClick={() => strips.append(STRIP)}>
              <Plus size={16} aria-hidden /> Another
            </Button>
          </fieldset>
          <Button type="submit" variant="primary" disabled={f.busy} className="justify-self-start">
            {f.busy ? 'Saving' : 'Save'}
          </Button>
        </form>
      </Panel>
      <div className="grid beside">
        <Panel title="Preview">
          <AerodromeDrawing
            narrow
            name={v.name || 'The aerodrome'}
            runways={v.runways.map((r: Strip, i: number) => ({
              surface: r.surface,
              lengthM: typedNumber(r.lengthM),
              widthM: typedNumber(r.widthM),
              centre: { eastM: i * STRIPS_APART_M, northM: 0 },
              ends: [
                {
                  ident: r.ident || '?',
                  trueBearingDeg: typedNumber(r.trueBearingDeg),
                  landmark: markOf(endsOf(r)[0]),
                },
                { ident: '', trueBearingDeg: typedNumber(r.trueBearingDeg) + 180, landmark: markOf(endsOf(r)[1]) },
              ],
            }))}
          />
          <p className="soft small mb-0">
            Drawn beside each other until their middles are entered in Settings, with obstacles and airspace.
          </p>
        </Panel>
        {children}
      </div>
    </div>
  );
}
