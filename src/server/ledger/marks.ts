import { dateText, list, localDate, localText } from '@/core/format';
import type { EntryMarks, LaterBody } from '@/domain/ledger';

/** What an entry says of itself beyond what was signed: its date, the signer's password, what came in late. */
export function markLines(
  of: (EntryMarks & Partial<Pick<LaterBody, 'late'>> & { timeZone?: string }) | null | undefined,
): string[] {
  if (!of) return [];
  // Entries of before name no zone.
  const at = (iso: string) => localText(iso, of.timeZone ?? 'UTC');
  return [
    ...(of.clockDoubt
      ? [
          'The date of this entry is in doubt: an entry before it is dated ' +
            `${at(of.clockDoubt.before)}, so the clock was not right for one of them.`,
        ]
      : []),
    ...(of.passwordGiven ?? []).map(
      (g) =>
        `The password of the signer\u2019s account had been given by ${g.by} on ${dateText(localDate(g.at, of.timeZone ?? 'UTC'))}; the signer changed it before signing.`,
    ),
    ...(of.late
      ? [
          `Signed with it, received after the entry it corrects: ${list(
            of.late.map(
              (l) =>
                `${l.landing === null ? `item ${l.item ?? ''}` : `landing ${l.landing}`} of lesson ${l.lesson}, ` +
                `recorded ${at(l.recordedAt)}`,
            ),
          )}.`,
        ]
      : []),
  ];
}
