import FormLabel from 'react-bootstrap/FormLabel';
import { FilterForm } from '@/ui/shared/filter-form';
import { DateInput } from '@/ui/shared/when-input';
import { firstLapse, standingOf } from '@/core/recency';
import type { PersonPage } from '@/server/people/queries/page';
import { dateText } from '@/core/format';
import { LAPSE_VERDICT, LapseList, lapseWords } from '@/ui/people/lapse';
import { Panel } from '@/ui/shared/parts';
import { Verdict } from '@/ui/shared/verdict';

const STANDING = {
  current: 'current',
  expiring: 'expiring',
  due: 'school check due',
  expired: 'expired',
  unknown: 'review, medical or rating not on record',
} as const;
/** What a person holds on a day, and to when. */
export function Standing({ p }: { p: PersonPage }) {
  const first = firstLapse(p.lapses);
  const standing = standingOf(p.lapses);
  return (
    <Panel title={p.onDate === p.today ? 'Currency and validity' : `Currency on ${dateText(p.onDate)}`}>
      <FilterForm className="filters mb-2" action={`/people/${p.pilotId}`} button="Apply">
        <div>
          <FormLabel htmlFor="on">On the day</FormLabel>
          <DateInput id="on" name="on" size="sm" defaultValue={p.onDate} />
        </div>
        <p className="mb-0 ms-auto">
          <Verdict verdict={LAPSE_VERDICT[standing]}>
            {STANDING[standing]}
            {first ? `; first to expire: ${first.what}, ${lapseWords(first)}` : ''}
          </Verdict>
        </p>
      </FilterForm>
      <LapseList lapses={p.lapses} />
      <p className="caution small mb-0 mt-2">
        {p.pack.name}. {p.pack.caution} Only flying as sole manipulator counts. Night is computed from the sun.
      </p>
    </Panel>
  );
}
