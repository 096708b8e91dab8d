import type { Transaction } from 'sequelize';
import type { PowerFound } from '@/domain/capture';
import { fold } from '@/offline/protocol';
import { toEvent } from '../../fly/tables';
import { PowerDecisions } from '../tables';
import * as ask from '../../floor/statements/hangar';

export interface PowerFinding {
  id: string;
  typeCode: string;
  registration: string;
  flownOn: string;
  unit: 'kt' | 'mph';
  authorName: string;
  data: PowerFound;
  decided: { decision: 'approved' | 'declined'; by: string; at: string; reason: string; version: number | null } | null;
}

/**
 * Power settings found in flight, newest first, with what was decided of each; those taken back in the aeroplane are
 * not among them.
 */
export async function powerFindings(typeCode: string | null, t?: Transaction): Promise<PowerFinding[]> {
  const found = await ask.powerFound.all({ typeCode }, t);
  const decided = await PowerDecisions.find(
    { pick: ['findingId', 'decision', 'version', 'decidedAt', 'reason'], with: { decider: ['name'] } },
    t,
  );
  const facts = new Map(found.map((f) => [f.subjectId, f]));
  const { powers } = fold(found.map(toEvent));
  return powers
    .flatMap((p): PowerFinding[] => {
      const f = facts.get(p.id);
      const d = decided.find((x) => x.findingId === p.id);
      return f
        ? [
            {
              id: p.id,
              typeCode: f.code,
              registration: f.registration,
              flownOn: f.flownOn,
              unit: f.unit,
              authorName: f.authorName,
              data: p.data,
              decided: d
                ? { decision: d.decision, by: d.decider.name, at: d.decidedAt, reason: d.reason, version: d.version }
                : null,
            },
          ]
        : [];
    })
    .reverse();
}
