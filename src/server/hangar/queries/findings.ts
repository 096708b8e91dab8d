import type { Transaction } from 'sequelize';
import type { PowerFound } from '@/domain/capture';
import { fold } from '@/offline/protocol';
import { rows } from '../../floor/connection';
import { type CaptureRow, toEvent } from '../../fly/tables';

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
  const found = await rows<
    CaptureRow & {
      registration: string;
      code: string;
      flown_on: string;
      author_name: string;
      unit: 'kt' | 'mph';
    }
  >(
    `SELECT e.*, a.registration, ty.code, s.flown_on, u.name AS author_name, json_extract(tv.sheet, '$.dial.unit') AS unit FROM capture_events e JOIN sorties s ON s.id = e.sortie_id JOIN checkouts c ON c.id = s.checkout_id
     JOIN airframes a ON a.id = c.airframe_id JOIN types ty ON ty.id = a.type_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN users u ON u.id = e.author
     WHERE (e.type = 'power-found' OR (e.type = 'undone' AND e.subject_id IN (SELECT subject_id FROM capture_events WHERE type = 'power-found'))) AND (:typeCode IS NULL OR ty.code = :typeCode)`,
    { typeCode },
    t,
  );
  const decided = await rows<{
    finding_id: string;
    decision: 'approved' | 'declined';
    name: string;
    decided_at: string;
    reason: string;
    version: number | null;
  }>('SELECT d.*, u.name FROM power_decisions d JOIN users u ON u.id = d.decided_by', {}, t);
  const facts = new Map(found.map((f) => [f.subject_id, f]));
  const { powers } = fold(found.map(toEvent));
  return powers
    .flatMap((p): PowerFinding[] => {
      const f = facts.get(p.id);
      const d = decided.find((x) => x.finding_id === p.id);
      return f
        ? [
            {
              id: p.id,
              typeCode: f.code,
              registration: f.registration,
              flownOn: f.flown_on,
              unit: f.unit,
              authorName: f.author_name,
              data: p.data,
              decided: d
                ? { decision: d.decision, by: d.name, at: d.decided_at, reason: d.reason, version: d.version }
                : null,
            },
          ]
        : [];
    })
    .reverse();
}
