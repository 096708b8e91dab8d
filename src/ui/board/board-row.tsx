import { Link } from '../shared/link';
import type { Goal, Stage } from '@/domain/words';
import { say } from '@/domain/words';
import { dateText, list, plural } from '@/core/format';
import { Wheel } from './wheel';

interface Props {
  summary: {
    id: string;
    pilotName: string;
    registration: string;
    typeName: string;
    goals: Goal[];
    lessons: number;
    landings: number;
    lastFlown: string | null;
  };
  /** The reader's own checkout, beside those they teach. */
  own?: boolean;
  met: number;
  total: number;
  stage: Stage;
  action: { text: string; href: string };
}

/** One open checkout: who, which aeroplane, how far, and the one next action. */
export function BoardRow({ summary: c, own = false, met, total, stage, action }: Props) {
  return (
    <article className="linkrow board-row" aria-label={c.pilotName}>
      <Wheel
        segments={Array.from({ length: total }, (_, i) => ({ progress: i < met ? 1 : 0, met: i < met, label: '' }))}
        size={50}
        centre={`${met}`}
        label={`${met} of ${total} items met`}
      />
      <div>
        <Link href={`/checkouts/${c.id}`} style={{ fontWeight: 700 }}>
          {c.pilotName}
        </Link>
        {own ? <span className="soft"> · your own checkout</span> : null}
        <br />
        <span className="code-face">{c.registration}</span>{' '}
        <span className="soft">
          {c.typeName} · {list(c.goals.map(say))}
        </span>
      </div>
      <div>
        <span style={{ fontWeight: 700 }}>{action.text}</span>
        <br />
        <span className="soft">
          {c.lessons === 0
            ? 'No lesson flown yet'
            : `${plural(c.lessons, 'lesson')}, ${plural(c.landings, 'landing')}${c.lastFlown ? `, last ${dateText(c.lastFlown)}` : ''}`}{' '}
          · {met} of {total} items met
        </span>
      </div>
      <Link className="btn btn-outline-primary" href={action.href} aria-label={`${STAGE_NAME[stage]}: ${c.pilotName}`}>
        {STAGE_NAME[stage]}
      </Link>
    </article>
  );
}
const STAGE_NAME: Record<Stage, string> = {
  open: 'Open',
  brief: 'Brief',
  fly: 'Fly',
  debrief: 'Debrief',
  sign: 'Sign',
};
