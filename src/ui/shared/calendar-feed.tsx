'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useActionForm } from './action-form';
import { Field } from './field';
import { type ActionResult, typedNumber } from './forms';
import { Problems } from './parts';
import { Refusal } from './refusal';
import { useTap } from './use-tap';

/** A calendar address of one's own, shown once. */
export function CalendarFeed({
  since,
  until,
  used,
  alarmMin,
  open,
  end,
}: {
  since: string | null;
  until: string | null;
  /** The day it was last fetched. */
  used: string | null;
  alarmMin: number;
  open: (form: unknown) => Promise<ActionResult<{ secret: string }>>;
  end: () => Promise<ActionResult>;
}) {
  const router = useRouter();
  const [address, setAddress] = useState('');
  const closing = useTap();
  const f = useActionForm({
    schema: async () => (await import('@/domain/settings-forms')).FeedForm,
    defaults: { alarmMin: String(alarmMin) },
    as: (v) => ({ alarmMin: typedNumber(v.alarmMin) }),
    action: open,
    done: (a) => {
      setAddress(`${location.origin}/api/calendar/${a.secret}.ics`);
      router.refresh();
    },
  });
  return (
    <div className="d-grid gap-2">
      <p className="mb-0">
        Your bookings in any calendar program: it reads this link by itself and reminds you before each flight.{' '}
        {since
          ? `A calendar link exists since ${since}, until ${until ?? ''}; ` +
            `${used ? `last fetched on ${used}` : 'not fetched yet'}. It ends with a new password.`
          : 'There is no calendar link.'}
      </p>
      <Problems problems={f.problems} title="Not opened" />
      <form {...f.props} className="d-flex gap-2 align-items-end flex-wrap" aria-label="Calendar link">
        <Field label="Remind me before" unit="min" id="alarm" error={f.error('alarmMin')}>
          <input inputMode="numeric" style={{ width: 110 }} {...f.register('alarmMin')} />
        </Field>
        <Button type="submit" variant="outline-primary" disabled={f.busy}>
          {since ? 'New calendar link' : 'Create calendar link'}
        </Button>
        {since ? (
          <Button
            variant="link"
            size="sm"
            disabled={closing.busy}
            onClick={() =>
              void closing.tap(end, {
                done: () => {
                  setAddress('');
                  router.refresh();
                },
              })
            }
          >
            End calendar link
          </Button>
        ) : null}
      </form>
      <Refusal said={closing.refusal} />
      {address ? (
        <p className="note-good mb-0" role="status">
          Shown only once. Anyone who has it can read your bookings:
          <br />
          <code className="num" style={{ overflowWrap: 'anywhere', fontFamily: 'inherit' }}>
            {address}
          </code>
        </p>
      ) : null}
    </div>
  );
}
