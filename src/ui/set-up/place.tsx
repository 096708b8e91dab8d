'use client';
import { Plus, Trash2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { useFieldArray } from 'react-hook-form';
import { PACKS, PACK_NAME, type PackId } from '@/domain/words';
import { useActionForm } from '../shared/action-form';
import { AerodromeDrawing } from '../shared/aerodrome-drawing';
import { Field } from '../shared/field';
import { type ActionResult, typedNumber, typedOrNull } from '../shared/forms';
import { Problems } from '../shared/parts';

interface Strip {
  ident: string;
  trueBearingDeg: string;
  lengthM: string;
  widthM: string;
  surface: string;
  firstFt: string;
  secondFt: string;
}
const STRIP: Strip = {
  ident: '',
  trueBearingDeg: '',
  lengthM: '',
  widthM: '',
  surface: 'asphalt',
  firstFt: '',
  secondFt: '',
};

/** Where the school flies, drawn while it is typed. */
export function PlaceForm({
  save,
  pack,
  zones,
}: {
  save: (form: unknown) => Promise<ActionResult>;
  pack: PackId;
  zones: string[];
}) {
  const router = useRouter();
  const f = useActionForm({
    draft: 'set-up-place',
    schema: async () => (await import('@/domain/set-up')).PlaceForm,
    defaults: {
      ident: '',
      name: '',
      homePack: pack as string,
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
      })),
    }),
    action: save,
    done: () => router.refresh(),
  });
  const strips = useFieldArray({ control: f.form.control, name: 'runways' });
  const v = f.form.watch();
  return (
    <form {...f.props} className="d-grid gap-3" aria-label="School and aerodrome">
      <Problems problems={f.problems} title="Not saved" />
      <div className="place-fields">
        <Field label="Name of the aerodrome" id="p-name" error={f.error('name')}>
          <input {...f.register('name')} />
        </Field>
        <Field label="Identifier" id="p-ident" error={f.error('ident')} hint="as in its METAR">
          <input className="code-face" {...f.register('ident')} />
        </Field>
        <Field label="Rules" id="p-pack" error={f.error('homePack')} hint="the law of your country">
          <select {...f.register('homePack')}>
            {PACKS.map((p) => (
              <option key={p} value={p}>
                {PACK_NAME[p]}
              </option>
            ))}
          </select>
        </Field>
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
            <Field label="Elevation, lower end" unit="ft" id={`r-${i}-first`} error={f.error(`runways.${i}.firstFt`)}>
              <input inputMode="numeric" {...f.register(`runways.${i}.firstFt`)} />
            </Field>
            <Field label="Elevation, other end" unit="ft" id={`r-${i}-second`} error={f.error(`runways.${i}.secondFt`)}>
              <input inputMode="numeric" {...f.register(`runways.${i}.secondFt`)} />
            </Field>
            {strips.fields.length > 1 ? (
              <Button
                variant="outline-primary"
                aria-label={`Remove runway ${i + 1}`}
                className="align-self-end"
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
      <AerodromeDrawing
        name={v.name || 'The aerodrome'}
        runways={v.runways.map((r: Strip, i: number) => ({
          surface: r.surface,
          lengthM: typedNumber(r.lengthM),
          widthM: typedNumber(r.widthM),
          centre: { eastM: i * 150, northM: 0 },
          ends: [
            { ident: r.ident || '?', trueBearingDeg: typedNumber(r.trueBearingDeg), landmark: null },
            { ident: '', trueBearingDeg: typedNumber(r.trueBearingDeg) + 180, landmark: null },
          ],
        }))}
      />
      <p className="soft small mb-0">
        Drawn beside each other until their middles are entered in Settings, with landmarks, lights and obstacles.
      </p>
      <Button type="submit" variant="primary" disabled={f.busy} className="justify-self-start">
        {f.busy ? 'Saving' : 'Save'}
      </Button>
    </form>
  );
}
