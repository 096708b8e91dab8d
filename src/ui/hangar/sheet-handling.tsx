import { ATTRIBUTES } from '@/domain/handling';
import type { TypeSheet } from '@/domain/sheet';
import { LIMIT_NAME, say } from '@/domain/words';
import { Panel } from '../shared/parts';
import { Source } from '../shared/source';

export function HowItHandles({ sheet }: { sheet: TypeSheet }) {
  return (
    <Panel title="Handling">
      <div className="cols-2">
        {sheet.attributes
          .filter((a) => a.key !== 'flap-pitch' || sheet.flapSteps.length > 1)
          .map((a) => (
            <div key={a.key} className="pair2">
              <span className="soft">{ATTRIBUTES[a.key].name}</span>
              <span>
                {a.value}
                <Source source={a.source} reference={a.ref} />
              </span>
            </div>
          ))}
      </div>
    </Panel>
  );
}

/** What the instructor reaches from the other seat. */
export function InstructorSeat({ sheet }: { sheet: TypeSheet }) {
  return (
    <Panel title="Instructor's seat">
      <table aria-label="Instructor's seat" className="plain">
        <tbody>
          {sheet.instructorSeat.map((s) => (
            <tr key={s.control}>
              <td>{s.control}</td>
              <td>
                {s.reach === 'reached' ? s.reach : <strong>{s.reach}</strong>}
                {s.note ? <div className="soft small">{s.note}</div> : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}

export function FlapInCrosswind({ sheet }: { sheet: TypeSheet }) {
  return sheet.flapSteps.length < 2 ? null : (
    <Panel title="Flap in crosswind">
      {sheet.crosswind.flapTable.length === 0 ? (
        <p className="mb-0">No table on the sheet.</p>
      ) : (
        <table aria-label="Flap in crosswind" className="plain">
          <tbody>
            {sheet.crosswind.flapTable.map((r) => (
              <tr key={String(r.upToKt)}>
                <td className="mono">{r.upToKt === null ? 'any' : `to ${r.upToKt} kt`}</td>
                <td className="mono">{r.maxFlapDeg}°</td>
                <td>{r.reason}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="soft mb-0 small">{sheet.crosswind.flapTableSource}</p>
    </Panel>
  );
}

/** What is done: after a limit was passed, in the flows, on the way out. */
export function Procedures({ sheet }: { sheet: TypeSheet }) {
  const afterLimit = sheet.afterLimit.filter((a) => a.channel !== 'vfe' || sheet.flapSteps.length > 1);
  return (
    <div className="grid g-3">
      {afterLimit.length > 0 ? (
        <Panel title="After an exceedance">
          {afterLimit.map((a) => (
            <p key={a.channel} className="mb-1">
              <strong>{LIMIT_NAME[a.channel]}:</strong> {a.text}
              <Source source={a.source} reference={a.ref} />
            </p>
          ))}
        </Panel>
      ) : null}
      {(sheet.manoeuvres ?? []).length > 0 ? (
        <Panel title="Entries to exercises">
          {(sheet.manoeuvres ?? []).map((m) => (
            <p key={m.item} className="mb-1">
              <strong>{say(m.item)}:</strong> {m.entryIas} {sheet.dial.unit}, {m.power}
              {m.g === null ? '' : `, ${m.g > 0 ? '+' : ''}${m.g} g`}; out: {m.exit}
              <Source source={m.source} reference={m.ref} />
            </p>
          ))}
        </Panel>
      ) : null}
      <Panel title="Notes">
        {sheet.handling.map((h) => (
          <p key={h.text} className="mb-1">
            {h.text}
            <Source source={h.source} reference={h.ref} />
          </p>
        ))}
      </Panel>
      <Panel title="Checks and flows">
        {sheet.flows.map((f) => (
          <p key={f.name} className="mb-1">
            <strong>{f.name}</strong>
            <Source source={f.source} reference={f.ref} />: {f.steps.join(', ')}.
          </p>
        ))}
        <p className="mb-0">
          <strong>Go-around</strong>: {sheet.goAroundFlow.join(', ')}.
        </p>
      </Panel>
      <Panel title="Exits and equipment">
        {sheet.exits.map((h) => (
          <p key={h.text} className="mb-1">
            {h.text}
            <Source source={h.source} reference={h.ref} />
          </p>
        ))}
        <p className="mb-0">{sheet.equipment.join(', ')}.</p>
      </Panel>
    </div>
  );
}
