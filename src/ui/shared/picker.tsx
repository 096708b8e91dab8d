'use client';
import { foundIn } from './found-in';
import { type SelectHTMLAttributes, useState } from 'react';

/** More than so many are not looked through by eye. */
const LONG = 12;

/**
 * A choice from a list; a long one can be searched. Accents need not be typed, and every word has to be found. What is
 * chosen stays in the list whatever is searched.
 */
export function Picker({
  options,
  empty,
  className = '',
  ...rest
}: Omit<SelectHTMLAttributes<HTMLSelectElement>, 'children'> & {
  options: readonly { value: string; label: string }[];
  /** The entry for nothing chosen. */
  empty?: string;
  ref?: React.Ref<HTMLSelectElement>;
}) {
  const [text, setText] = useState('');
  const fits = (label: string) => foundIn(label, text);
  const found = options.filter((o) => fits(o.label)).length;
  const select = (
    <select {...rest} className={className.replace('form-control', 'form-select')}>
      {empty === undefined ? null : <option value="">{empty}</option>}
      {options.map((o) => (
        <option key={o.value} value={o.value} hidden={!fits(o.label)} disabled={!fits(o.label)}>
          {o.label}
        </option>
      ))}
    </select>
  );
  if (options.length <= LONG) return select;
  return (
    <div className="picker">
      <input
        type="search"
        className="form-control form-control-sm"
        placeholder="Search the list"
        aria-label={`Search the list of ${options.length}`}
        value={text}
        onChange={(e) => setText(e.target.value)}
        // Enter goes on to the list, not to the form.
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== 'ArrowDown') return;
          e.preventDefault();
          e.currentTarget.parentElement?.querySelector('select')?.focus();
        }}
      />
      <p className="visually-hidden" role="status">
        {text.trim() !== '' ? `${found} of ${options.length} in the list` : ''}
      </p>
      {select}
    </div>
  );
}
