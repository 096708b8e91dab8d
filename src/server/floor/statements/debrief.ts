import { computed, real, whole } from '../columns';
import { statement } from '../statement';
import { Traces } from '../../traces/tables';

/** What a debrief reads of an event that an analysis found. */
interface FoundEvent {
  touchdown?: { tS: number };
  startS: number;
  gates?: { name: string; heightFt: number | null; deviationKt: number | null }[];
}

export const decideFinding = statement('debrief.decideFinding', {
  params: ['id'],
  sql: `SELECT MAX(seq) AS n FROM finding_decisions WHERE checkout_id = :id`,
  row: { n: real.nullable() },
});

export const assessSelf = statement('debrief.assessSelf', {
  params: ['sortieId'],
  sql: `SELECT MAX(seq) AS n FROM self_assessments WHERE sortie_id = :sortieId`,
  row: { n: real.nullable() },
});

export const saveDebrief = statement('debrief.saveDebrief', {
  params: ['sortieId'],
  sql: `SELECT MAX(version) AS n FROM debriefs WHERE sortie_id = :sortieId`,
  row: { n: real.nullable() },
});

export const savePlan = statement('debrief.savePlan', {
  params: ['checkoutId', 'lesson'],
  sql: `SELECT MAX(version) AS n FROM lesson_plans WHERE checkout_id = :checkoutId AND lesson = :lesson`,
  row: { n: real.nullable() },
});

export const readDebriefLandings = statement('debrief.readDebriefLandings', {
  params: ['traces'],
  sql: `SELECT id, json_extract(analysis, '$.events') AS events FROM traces WHERE id IN (:traces)`,
  row: { id: Traces.columns.id, events: computed<FoundEvent[]>() },
});

const sides = (column: string) =>
  `SELECT COUNT(DISTINCT pilot_id) AS pilots, SUM(left_n) AS l, SUM(line_n) AS m, SUM(right_n) AS r FROM (SELECT pilot_id, left_n, line_n, right_n FROM side_tallies WHERE ${column} = :value AND pilot_id <> :pilot ORDER BY newest DESC LIMIT :most)`;
const seenSides = { pilots: whole, l: whole.nullable(), m: whole.nullable(), r: whole.nullable() };
/** The sides an instructor saw of other pilots, and everybody of an aeroplane. */
export const sidesByAuthor = statement('debrief.sidesByAuthor', {
  params: ['value', 'pilot', 'most'],
  sql: sides('author'),
  row: seenSides,
});
export const sidesByAirframe = statement('debrief.sidesByAirframe', {
  params: ['value', 'pilot', 'most'],
  sql: sides('airframe_id'),
  row: seenSides,
});
