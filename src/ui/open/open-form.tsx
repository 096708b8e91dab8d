'use client';
import Button from 'react-bootstrap/Button';
import Feedback from 'react-bootstrap/Feedback';
import FormCheck from 'react-bootstrap/FormCheck';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import { dateText, list, plural } from '@/core/format';
import { standardProposed } from '@/core/assess';
import { type AirframeFacts, FACT_WORDS, type Holding, missingNeeds, offeredFor, openCheckout } from '@/core/plan';
import type { Need } from '@/domain/assess-words';
import type { PersonDate } from '@/core/recency';
import type { RulePack } from '@/domain/programme';
import { type Goal, type PackId, say } from '@/domain/words';
import { type AskElsewhere, Elsewhere } from './elsewhere';
import { Field } from '../shared/field';
import { Picker } from '../shared/picker';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import { Title } from '../shared/title';
import { Verdict } from '../shared/verdict';
import { newId } from '../shared/new-id';

interface Values {
  requestId: string;
  pilotId: string;
  airframeId: string;
  pack: PackId;
  goals: Goal[];
  standardKey: string;
  note: string;
  /** Open checkouts whose proof is carried. */
  carry: string[];
}
interface Pilot {
  id: string;
  name: string;
  experience: string;
  certificate: string;
  hours: number;
  holds: Holding[];
  experienceSince: Record<string, string>;
  dates: PersonDate[];
}
interface Frame {
  id: string;
  registration: string;
  typeCode: string;
  typeName: string;
  summary: string;
  facts: AirframeFacts;
  modifications: string[];
  /** Entries of its sheets that nobody has confirmed. */
  samples: number;
}
interface Props {
  action: (form: unknown) => Promise<ActionResult<{ id: string }>>;
  /** Other open checkouts of a pilot, and what they show for this one. */
  elsewhere: AskElsewhere;
  /** The aerodrome's own date: what is dated is looked at on it. */
  today: string;
  pilots: Pilot[];
  airframes: Frame[];
  packs: RulePack[];
  standards: { key: string; name: string }[];
  /** Which aeroplanes a programme is for, and what each of its items needs of one. */
  programmes: { key: string; offered: Need[][]; needs: Need[][] }[];
}

/** Open: who, which aeroplane, under which rules; what that demands, what may be credited, who decides. */
export function OpenForm({ action, elsewhere, today, pilots, airframes, packs, standards, programmes }: Props) {
  const router = useRouter();
  const f = useActionForm<Values, { id: string }>({
    schema: async () => (await import('@/domain/open-form')).OpenForm,
    defaults: {
      requestId: '',
      pilotId: '',
      airframeId: '',
      pack: 'us',
      goals: [],
      standardKey: 'private-us',
      note: '',
      carry: [],
    },
    fresh: () => ({ requestId: newId() }),
    draft: 'open',
    also: ['pilotId', 'airframeId', 'pack', 'goals', 'standardKey', 'carry'],
    as: (v) => v,
    action,
    done: ({ id }) => router.push(`/checkouts/${id}/brief`),
  });
  const { form, register, error } = f;
  const [pilotId, airframeId, packKey, goals] = form.watch(['pilotId', 'airframeId', 'pack', 'goals']);

  const pilot = pilots.find((p) => p.id === pilotId);
  const frame = airframes.find((a) => a.id === airframeId);
  const pack = packs.find((p) => p.key === packKey);
  const opening = useMemo(
    () =>
      pilot && frame && pack
        ? openCheckout(frame.facts, pack, pilot.holds, pilot.experienceSince, frame.typeCode, {
            dates: pilot.dates,
            onDate: today,
          })
        : null,
    [pilot, frame, pack, today],
  );
  useEffect(() => {
    if (opening) form.setValue('goals', opening.proposedGoals as Goal[]);
  }, [opening, form]);
  const examiner = goals.some((g) => pack?.goals.find((x) => x.goal === g)?.decides === 'examiner');
  const proposed = standardProposed(pack?.standardFor, pilot?.certificate ?? '', examiner);
  useEffect(() => {
    if (proposed && standards.some((s) => s.key === proposed)) form.setValue('standardKey', proposed);
  }, [proposed, standards, form]);

  const programmeOf = (goal: string) =>
    programmes.find((p) => p.key === `${goal}-${packKey}`) ?? programmes.find((p) => p.key === `${goal}-house`);
  const itemsOf = (goal: string) =>
    (programmeOf(goal)?.needs ?? []).filter((needs) => !frame || missingNeeds({ needs }, frame.facts).length === 0)
      .length;
  /** A goal that cannot be flown in this aeroplane is not offered. */
  const offered = (goal: string) => {
    const programme = programmeOf(goal);
    return !frame || !programme || offeredFor(programme, frame.facts);
  };

  return (
    <form {...f.props}>
      <Title
        title="Open a checkout"
        line="Choose pilot, aeroplane and rules. Requirements are worked out from the type sheet."
      />
      <div className="grid g-1-1">
        <div className="grid" style={{ alignContent: 'start' }}>
          <Panel title="Pilot and aeroplane">
            <div className="d-grid gap-3">
              <Field label="Pilot" id="pilotId" error={error('pilotId')}>
                <Picker
                  {...register('pilotId')}
                  empty="Choose"
                  options={pilots.map((p) => ({ value: p.id, label: p.name }))}
                />
              </Field>
              <Field label="Aeroplane" id="airframeId" error={error('airframeId')}>
                <Picker
                  {...register('airframeId')}
                  empty="Choose"
                  options={airframes.map((a) => ({
                    value: a.id,
                    label: [
                      a.registration,
                      a.typeName,
                      ...(a.modifications.length > 0 ? [list(a.modifications)] : []),
                      ...(a.samples > 0 ? ['sample, not confirmed'] : []),
                    ].join(' · '),
                  }))}
                />
              </Field>
              <Field label="Rules" id="pack" error={error('pack')}>
                <select {...register('pack')}>
                  {packs.map((p) => (
                    <option key={p.key} value={p.key}>
                      {p.name}
                    </option>
                  ))}
                </select>
              </Field>
              <fieldset>
                <legend className="form-label">
                  Goals {opening ? <span className="soft">(proposed from what is missing)</span> : null}
                </legend>
                {(pack?.goals ?? [])
                  .filter((g) => offered(g.goal))
                  .map((g) => (
                    <FormCheck
                      key={g.goal}
                      id={`goal-${g.goal}`}
                      value={g.goal}
                      disabled={itemsOf(g.goal) === 0}
                      label={
                        <>
                          {g.title}{' '}
                          <span className="soft">
                            {itemsOf(g.goal) === 0
                              ? '(no programme under these rules yet)'
                              : `${g.citation}, ${plural(itemsOf(g.goal), 'item')}`}
                          </span>
                        </>
                      }
                      {...register('goals')}
                    />
                  ))}
                {error('goals') ? (
                  <Feedback type="invalid" role="alert">
                    {error('goals')?.message}
                  </Feedback>
                ) : null}
              </fieldset>
              <Field
                label="Standard"
                id="standardKey"
                error={error('standardKey')}
                hint="Tolerances for every landing, proposed from the certificate held. Fixed for this checkout."
              >
                <select {...register('standardKey')}>
                  {standards.map((s) => (
                    <option key={s.key} value={s.key}>
                      {s.name}
                    </option>
                  ))}
                </select>
              </Field>
              <Field label="Note" id="note" error={error('note')}>
                <textarea rows={2} {...register('note')} />
              </Field>
            </div>
          </Panel>
          {pilot ? (
            <Elsewhere
              pilot={pilot}
              airframeId={airframeId}
              pack={packKey}
              goals={goals}
              ask={elsewhere}
              carry={register('carry')}
            />
          ) : null}
        </div>
        <Panel title="Requirements">
          {!opening || !pilot || !frame || !pack ? (
            <p className="soft">
              Choose a pilot and an aeroplane. What the aeroplane requires, what the pilot holds and who decides is
              shown here.
            </p>
          ) : (
            <div className="d-grid gap-3" aria-live="polite">
              <p className="mb-0">
                {pilot.name}: {pilot.experience}; {pilot.hours} h total. {frame.summary}
              </p>
              <table aria-label="Requirements and what the pilot has" className="plain">
                <thead>
                  <tr>
                    <th scope="col">{frame.registration} requires</th>
                    <th scope="col">Pilot</th>
                  </tr>
                </thead>
                <tbody>
                  {[...(opening.demands.classRatings ?? []), ...opening.demands.endorsements].map((kind) => {
                    const credit = opening.credited.find((c) => c.kind === kind);
                    const held = pilot.holds.find((h) => h.kind === kind);
                    const holds = opening.held.includes(kind);
                    return (
                      <tr key={kind}>
                        <td>{say(kind)}</td>
                        <td>
                          {holds ? (
                            <Verdict verdict="within">
                              held{held?.gainedOn ? ` since ${dateText(held.gainedOn)}` : ''}
                            </Verdict>
                          ) : credit ? (
                            <>
                              <Verdict verdict="edge">may be credited</Verdict>
                              <div className="soft" style={{ fontSize: 14 }}>
                                {credit.why}
                              </div>
                            </>
                          ) : (
                            <Verdict verdict="outside">missing</Verdict>
                          )}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
              {opening.demands.unknown.length > 0 ? (
                <p className="caution mb-0">
                  The sheet does not say: {list(opening.demands.unknown.map((k) => FACT_WORDS[k] ?? k))}. What depends
                  on it stays undecided.
                </p>
              ) : null}
              <div>
                <h3 style={{ fontSize: 15, fontWeight: 700 }}>
                  Pilot in command:{' '}
                  {opening.pic === 'instructor'
                    ? 'the instructor'
                    : opening.pic === 'pilot'
                      ? 'the pilot may be'
                      : 'not decided'}
                </h3>
                <p className="mb-1">{opening.picReason}</p>
                <p className="mb-0 soft">{opening.logs}</p>
              </div>
              <div>
                <h3 style={{ fontSize: 15, fontWeight: 700 }}>Who decides</h3>
                {goals.length === 0 ? (
                  <p className="mb-0">Choose a goal.</p>
                ) : (
                  goals.map((g) => {
                    const entry = pack.goals.find((x) => x.goal === g);
                    return entry ? (
                      <p key={g} className="mb-1">
                        {entry.title}:{' '}
                        <strong>
                          {entry.decides === 'instructor'
                            ? 'the instructor signs'
                            : 'a recommendation, then a test with an examiner'}
                        </strong>
                        . {entry.essence}{' '}
                        <span className="soft">
                          {entry.citation}. {entry.instructorNeeds}
                        </span>
                        {entry.confirm ? (
                          <span className="v-edge"> To be confirmed against the current text.</span>
                        ) : null}
                      </p>
                    ) : null;
                  })
                )}
              </div>
              <p className="caution mb-0">{pack.caution}</p>
            </div>
          )}
        </Panel>
      </div>
      <div className="mt-3">
        <Problems problems={f.problems} title="Not opened" />
        <Button type="submit" variant="primary" disabled={f.busy}>
          {f.busy ? 'Opening' : 'Open and brief'}
        </Button>
      </div>
    </form>
  );
}
