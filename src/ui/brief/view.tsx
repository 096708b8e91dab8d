'use client';
import Button from 'react-bootstrap/Button';
import { Link } from '../shared/link';
import type { BriefResult } from '@/core/approach';
import { dateText, localText, windText } from '@/core/format';
import type { BriefChoices } from '@/domain/brief';
import { say } from '@/domain/words';
import type { ActionResult } from '../shared/forms';
import { useTap } from '../shared/use-tap';
import { Outranked, Problems } from '../shared/parts';
import { Title } from '../shared/title';
import { SourceKey } from '../shared/source';
import { type BriefFacts, BriefPanels } from './panels';

interface Props extends BriefFacts {
  lesson: number;
  choices: BriefChoices;
  result: BriefResult;
  briefId: string;
  acknowledgedAt: string | null;
  acknowledgedByName: string | null;
  /** The lesson was flown: its brief is no longer to be acknowledged. */
  flown: boolean;
  mayAcknowledge: boolean;
  acknowledge: (briefId: string) => Promise<ActionResult>;
}

/** A stored brief as the pilot reads it: exactly the snapshot that was saved. */
export function BriefView(props: Props) {
  const { choices, lesson, acknowledgedAt, acknowledgedByName, mayAcknowledge } = props;
  const { tap, busy, problems } = useTap();
  const wind = choices.wind
    ? `wind ${windText(choices.wind)} ${choices.wind.reference} at ${localText(choices.wind.observedAt, props.aerodrome.timeZone)}`
    : 'no wind entered';
  return (
    <>
      <Title
        long
        title={`Brief for lesson ${lesson}`}
        line={`${dateText(choices.flownOn)}, ${choices.aerodrome ? `${props.aerodrome.name}, ` : ''}runway ${choices.runwayEnd}, ${wind}${props.sheet.gear.layout === 'tailwheel' ? `, ${say(choices.intended)} landings intended` : ''}.`}
      >
        <Link className="btn btn-outline-primary" href={`/print/kneeboard/${props.briefId}`}>
          Card
        </Link>
        {mayAcknowledge ? (
          <a className="btn btn-outline-primary" href="#acknowledge">
            Acknowledge at the end
          </a>
        ) : null}
      </Title>
      {acknowledgedAt ? (
        <p className="note-good">
          Acknowledged by {acknowledgedByName ?? 'the pilot'}, {localText(acknowledgedAt, props.aerodrome.timeZone)}.
        </p>
      ) : props.flown ? (
        <p className="soft">This lesson was flown; its brief was not acknowledged before.</p>
      ) : null}
      {choices.focus ? (
        <p>
          <strong>Focus on one thing:</strong> {choices.focus}
        </p>
      ) : null}
      <div className="grid">
        <SourceKey />
        <BriefPanels shown={{ ...props, result: props.result }} arranging={null} />
        <Outranked extra="Wind and mass are as saved." />
        {mayAcknowledge ? (
          <div id="acknowledge">
            <Problems problems={problems} />
            <Button variant="primary" onClick={() => void tap(() => props.acknowledge(props.briefId))} disabled={busy}>
              {busy ? 'Sending' : 'I have read and understood this brief'}
            </Button>
          </div>
        ) : null}
      </div>
    </>
  );
}
