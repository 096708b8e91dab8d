'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { asFlown, countFlown, flownWords } from '@/core/assess';
import { say } from '@/domain/words';
import { EVERY_TYPE, type LandingFilter, type ProgressLanding, WINDS, ofType } from './progress-filter';

interface Option {
  key: string;
  name: string;
}
export function Choose({
  id,
  label,
  value,
  set,
  options,
}: {
  id: string;
  label: string;
  value: string;
  set: (v: string) => void;
  options: readonly Option[];
}) {
  return (
    <div>
      <FormLabel htmlFor={id}>{label}</FormLabel>
      <FormSelect id={id} size="sm" value={value} onChange={(e) => set(e.target.value)}>
        {options.map((o) => (
          <option key={o.key} value={o.key}>
            {o.name}
          </option>
        ))}
      </FormSelect>
    </div>
  );
}

interface Props {
  filter: LandingFilter;
  change: (filter: LandingFilter) => void;
  landings: readonly ProgressLanding[];
  checkoutId: string;
  here: string;
  types: readonly string[];
  chosen: readonly ProgressLanding[];
}
/** Which landings the page shows, and how many they are. */
export function ProgressFilters({ filter, change, landings, checkoutId, here, types, chosen }: Props) {
  const lessons = [...new Set(ofType(landings, filter.type, { checkoutId, here }).map((l) => l.lesson))].sort(
    (a, b) => a - b,
  );
  const attitudes = [...new Set(landings.flatMap((l) => l.intended ?? []))];
  const set = (part: Partial<LandingFilter>) => change({ ...filter, ...part });
  return (
    <div className="panel mb-3">
      <div className="filters" role="group" aria-label="Which landings">
        <Choose
          id="f-lesson"
          label="Lesson"
          value={filter.lesson}
          set={(lesson) => set({ lesson })}
          options={[{ key: 'all', name: 'all' }, ...lessons.map((n) => ({ key: String(n), name: String(n) }))]}
        />
        <Choose
          id="f-type"
          label="Aeroplane"
          value={filter.type}
          set={(type) => set({ type, lesson: 'all' })}
          options={[
            { key: here, name: `${here}, this checkout` },
            ...types.map((t) => ({ key: t, name: `${t}, before` })),
            ...(types.length > 0 ? [{ key: EVERY_TYPE, name: EVERY_TYPE }] : []),
          ]}
        />
        <Choose
          id="f-wind"
          label="Wind"
          value={filter.wind}
          set={(v) => set({ wind: v as LandingFilter['wind'] })}
          options={WINDS}
        />
        <Choose
          id="f-attitude"
          label="Intended"
          value={filter.attitude}
          set={(attitude) => set({ attitude })}
          options={[{ key: 'all', name: 'any attitude' }, ...attitudes.map((a) => ({ key: a, name: say(a) }))]}
        />
        <p className="mb-1 small" role="status">
          {chosen.length} of {landings.length} chosen
          {chosen.length > 0 ? `: ${flownWords(countFlown(chosen.map(asFlown)))}` : ''}
        </p>
      </div>
    </div>
  );
}
