'use client';
import { type Ask, BUBBLES, SLIP_ENDS, TRAVELS } from '@/domain/airwork';
import type { AirworkDetail } from '@/domain/capture';
import { Stepper, Words } from './parts';

type Handling = Extract<AirworkDetail, { form: 'handling' }>;

/** What hands and feet did, as far as the item asks for it; how it went stays the instructor's word. */
export function HandlingForm({
  asks,
  detail,
  set,
}: {
  asks: readonly Ask[];
  detail: Handling | null;
  set: (d: AirworkDetail | null) => void;
}) {
  const now = detail ?? { form: 'handling' as const, throttleS: null, travel: null, bubble: null, slipLeft: null };
  const put = (change: Partial<Handling>) => set({ ...now, ...change });
  const asked = (a: Ask) => asks.includes(a);
  return (
    <div className="pair">
      {asked('throttle') ? (
        <Stepper
          title="Throttle opened over, about 3 s"
          name="Throttle opened over"
          unit="s"
          start={3}
          step={0.5}
          digits={1}
          least={0.5}
          most={30}
          usual={[1, 2, 3, 4, 5]}
          now={now.throttleS}
          set={(throttleS) => put({ throttleS })}
        />
      ) : null}
      {asked('slip') ? (
        <Words
          title="Slip left"
          options={SLIP_ENDS}
          now={now.slipLeft}
          choose={(slipLeft) => put({ slipLeft })}
          columns={2}
        />
      ) : null}
      {asked('bubble') ? <Bubble now={now.bubble} choose={(bubble) => put({ bubble })} /> : null}
      {asked('travel') ? <Travel now={now.travel} choose={(travel) => put({ travel })} /> : null}
    </div>
  );
}

export const Travel = ({ now, choose }: { now: Handling['travel']; choose: (v: Handling['travel']) => void }) => (
  <Words title="Control moved" options={TRAVELS} now={now} choose={choose} columns={2} />
);
export const Bubble = ({ now, choose }: { now: Handling['bubble']; choose: (v: Handling['bubble']) => void }) => (
  <Words title="Bubble of power" options={BUBBLES} now={now} choose={choose} columns={3} />
);
