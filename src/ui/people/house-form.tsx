'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { PACKS, type PackId } from '@/domain/words';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Problems } from '../shared/parts';

const NAME: Record<PackId, string> = { us: 'United States', eu: 'Europe', au: 'Australia' };
/**
 * The rule pack that the office’s pages and words follow, and the hours of the schedule. A change is a new version of
 * the house rules.
 */
export function HouseForm({
  house,
  save,
}: {
  house: {
    homePack: PackId;
    openFrom: string;
    openTo: string;
    stepMin: number;
    nightFlying: boolean;
    stalledDays: number;
  };
  save: (form: typeof house & { reason: string }) => Promise<ActionResult<{ version: number; unchanged: boolean }>>;
}) {
  const router = useRouter();
  const [v, setV] = useState(house);
  const [reason, setReason] = useState('');
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [said, setSaid] = useState('');
  const at = (path: string) => problems.find((p) => p.path.endsWith(path));
  return (
    <form
      className="d-grid gap-2"
      aria-label="House"
      onSubmit={(e) => {
        e.preventDefault();
        void runAction(() => save({ ...v, reason })).then((a) => {
          setProblems(a.ok ? [] : a.problems);
          setSaid(a.ok ? (a.unchanged ? 'Nothing changed.' : `Kept as version ${a.version} of the house rules.`) : '');
          if (a.ok) {
            setReason('');
            router.refresh();
          }
        });
      }}
    >
      <Problems
        problems={problems.filter((p) => !/openFrom|openTo|stepMin|stalledDays|reason/.test(p.path))}
        title="Not kept"
      />
      <div className="two">
        <Field
          label="Home rule pack"
          id="h-pack"
          hint="recency of everybody, night, words such as circuit or traffic pattern"
        >
          <select value={v.homePack} onChange={(e) => setV({ ...v, homePack: e.target.value as PackId })}>
            {PACKS.map((p) => (
              <option key={p} value={p}>
                {NAME[p]}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Grid of the schedule" unit="min" id="h-step" error={at('stepMin')}>
          <input
            inputMode="numeric"
            value={String(v.stepMin)}
            onChange={(e) => setV({ ...v, stepMin: Number(e.target.value) })}
          />
        </Field>
        <Field label="Bookings from, local" id="h-from" error={at('openFromMin')}>
          <input type="time" value={v.openFrom} onChange={(e) => setV({ ...v, openFrom: e.target.value })} />
        </Field>
        <Field label="to" id="h-to" error={at('openToMin')}>
          <input type="time" value={v.openTo} onChange={(e) => setV({ ...v, openTo: e.target.value })} />
        </Field>
        <Field label="A checkout has stalled after" unit="days" id="h-stalled" error={at('stalledDays')}>
          <input
            inputMode="numeric"
            value={String(v.stalledDays)}
            onChange={(e) => setV({ ...v, stalledDays: Number(e.target.value) })}
          />
        </Field>
        <div className="form-check align-self-end">
          <input
            type="checkbox"
            className="form-check-input"
            id="h-night"
            checked={v.nightFlying}
            onChange={(e) => setV({ ...v, nightFlying: e.target.checked })}
          />
          <label className="form-check-label" htmlFor="h-night">
            the house flies at night
          </label>
        </div>
      </div>
      <Field label="Reason" id="h-reason" error={at('reason')}>
        <input value={reason} onChange={(e) => setReason(e.target.value)} />
      </Field>
      <div className="d-flex gap-2 align-items-center">
        <Button type="submit" variant="primary">
          Keep
        </Button>
        <span role="status" className="soft">
          {said}
        </span>
      </div>
    </form>
  );
}
