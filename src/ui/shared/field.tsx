'use client';
import { type ReactElement, type ReactNode, cloneElement } from 'react';
import Feedback from 'react-bootstrap/Feedback';
import FormLabel from 'react-bootstrap/FormLabel';
import FormText from 'react-bootstrap/FormText';

interface ControlProps {
  id?: string;
  className?: string;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string | undefined;
}

/** A labelled control with its hint and its message beside it. The control is an input, select or textarea. */
export function Field({
  label,
  id,
  error,
  hint,
  unit,
  hideLabel = false,
  children,
}: {
  label: string;
  id: string;
  error?: { message?: string | undefined } | undefined;
  hint?: ReactNode;
  unit?: string;
  /** Where a row of controls explains itself to the eye. */
  hideLabel?: boolean;
  children: ReactElement<ControlProps>;
}) {
  const described = [error ? `${id}-error` : null, hint ? `${id}-hint` : null].filter(Boolean).join(' ') || undefined;
  const kind = children.type === 'select' ? 'form-select' : 'form-control';
  const control = cloneElement(children, {
    id,
    className: `${kind}${error ? ' is-invalid' : ''} ${children.props.className ?? ''}`,
    'aria-invalid': Boolean(error),
    'aria-describedby': described,
  });
  return (
    <div>
      <FormLabel htmlFor={id} visuallyHidden={hideLabel}>
        {label}
        {unit ? <span className="soft"> ({unit})</span> : null}
      </FormLabel>
      {control}
      {error?.message ? (
        <Feedback type="invalid" id={`${id}-error`} role="alert">
          {error.message}
        </Feedback>
      ) : null}
      {hint ? (
        <FormText as="div" id={`${id}-hint`}>
          {hint}
        </FormText>
      ) : null}
    </div>
  );
}
