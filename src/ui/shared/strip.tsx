import { Link } from './link';
import type { Goal, Stage } from '@/domain/words';
import { STAGES, say } from '@/domain/words';
import { hoursText, list } from '@/core/format';
import { StageNav } from './stage-nav';
import { HelpButton } from './help-button';

export interface StripFacts {
  checkoutId: string;
  pilotName: string;
  registration: string;
  typeName: string;
  goals: Goal[];
  stage: Stage;
  lesson: number;
  wind: { text: string; age: string } | null;
  signed: boolean;
  /** Minutes left in the ledgering that runs now; null = none runs. */
  leftMin: number | null;
}

const HREF: Record<Stage, string> = { open: '', brief: '/brief', fly: '/fly', debrief: '/debrief', sign: '/sign' };
const NAME: Record<Stage, string> = { open: 'Open', brief: 'Brief', fly: 'Fly', debrief: 'Debrief', sign: 'Sign' };

/** The flight strip: the one thing always in the same place on every screen of a checkout. */
export function FlightStrip({ facts, at }: { facts: StripFacts; at: Stage }) {
  const reached = STAGES.indexOf(facts.stage);
  return (
    <header className="strip">
      <Link href="/board" className="brand">
        jeito
      </Link>
      <div className="fact">
        <b>{facts.pilotName}</b>
        <span>
          {list(facts.goals.map(say))}
          {facts.lesson > 0 ? ` · lesson ${facts.lesson}` : ''}
        </span>
      </div>
      <div className="fact">
        <b className="code-face">{facts.registration}</b>
        <span>{facts.typeName}</span>
      </div>
      <StageNav
        at={at}
        stages={STAGES.map((s, i) => ({
          key: s,
          name: NAME[s],
          href: `/checkouts/${facts.checkoutId}${HREF[s]}`,
          done: i < reached || facts.signed,
        }))}
      />
      <div className="fact wind">
        <b className="mono">{facts.wind?.text ?? 'no wind'}</b>
        <span>{facts.wind?.age ?? 'enter it in the brief'}</span>
      </div>
      {facts.leftMin === null ? null : (
        <div className="fact left">
          <b className="mono">{hoursText(facts.leftMin)}</b>
          <span>left in booking</span>
        </div>
      )}
      <HelpButton />
    </header>
  );
}

/** The same bar on pages that belong to no checkout. */
export function PageStrip({ name, line, user }: { name: string; line: string; user: string }) {
  return (
    <header className="strip">
      <Link href="/board" className="brand">
        jeito
      </Link>
      <div className="fact">
        <b>{name}</b>
        <span>{line}</span>
      </div>
      <div className="fact push">
        <b>
          <Link href="/account">{user}</Link>
        </b>
        <span>signed in</span>
      </div>
      <HelpButton />
    </header>
  );
}
