import { fixed, withUnit } from '@/core/format';
import type { Sourced } from '@/domain/sheet';
import { say } from '@/domain/words';
import { Source } from '../shared/source';

const digits = (v: number): number => (Number.isInteger(v) ? 0 : Math.abs(v) < 0.1 ? 3 : (v * 10) % 1 === 0 ? 1 : 2);

/** A number with its source; what other sources say stands beside it with the difference. */
export const Value = ({ of, unit }: { of: Sourced | null; unit: string }) =>
  of ? (
    <span>
      <span className="mono" style={{ whiteSpace: 'nowrap' }}>
        {withUnit(of.value, unit, digits(of.value))}
        <Source source={of.source} reference={of.ref} />
      </span>
      {(of.others ?? []).map((o) => (
        <span key={o.ref} className="soft small" style={{ display: 'block' }}>
          {say(o.source)} {withUnit(o.value, unit, digits(o.value))} ({o.value > of.value ? '+' : ''}
          {fixed(o.value - of.value, digits(o.value - of.value))}), {o.ref}
        </span>
      ))}
    </span>
  ) : (
    <span className="soft">not on the sheet</span>
  );
