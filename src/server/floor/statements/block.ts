/** The first or last tap of one mark of the clock of the lesson `s`, those taken back left out. */
export const mark = (which: string, fn: 'MIN' | 'MAX') =>
  `(SELECT ${fn}(json_extract(e.payload, '$.at')) FROM capture_events e
    WHERE e.sortie_id = COALESCE(s.shared_with, s.id) AND e.type = 'timer-marked' AND json_extract(e.payload, '$.mark') = '${which}'
      AND NOT EXISTS (SELECT 1 FROM capture_events u WHERE u.type = 'undone' AND u.subject_id = e.subject_id))`;
/** When the lesson `s` left its block, and when it was back; take-off and landing where no block was tapped. */
export const BLOCK_FROM = `COALESCE(${mark('off-block', 'MIN')}, ${mark('take-off', 'MIN')})`;
export const BLOCK_TO = `COALESCE(${mark('on-block', 'MAX')}, ${mark('landed', 'MAX')})`;
