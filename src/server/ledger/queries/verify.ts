import { dateText, list } from '@/core/format';
import { entryProblems, entryProblemWords } from '@/core/ledger';
import { say } from '@/domain/words';
import { ledgerEntry } from '../entries';
import { ledgerTools, publicKeys } from '../keys';
import { checkInThread } from '../check';
import { markLines } from '../marks';
import { entryTitle } from '../titles';
import * as ask from '../../floor/statements/ledger';
import { bodyOf } from '../body';

/** What anybody with the paper or the file in hand is told. */
export interface VerifyAnswer {
  verdict: 'holds' | 'void' | 'not-here' | 'broken' | 'unreadable';
  title: string;
  lines: string[];
  problems: string[];
}
const NOT_HERE: VerifyAnswer = {
  verdict: 'not-here',
  title: 'No entry of this ledger has this code and hash',
  lines: [
    'Check what was typed. If it was read from a printed code, the sheet is not from this ledger, or it was changed.',
  ],
  problems: [],
};

/** A printed code: the entry's id and its full hash. Without both nothing is said. */
export async function verifyCode(id: string, hash: string): Promise<VerifyAnswer> {
  if (!/^[0-9a-f-]{36}$/.test(id) || !/^[0-9a-f]{64}$/.test(hash)) return NOT_HERE;
  const entry = await ledgerEntry(id);
  if (!entry || entry.hash !== hash) return NOT_HERE;
  const problems = entryProblems(entry, ledgerTools());
  if (problems.length > 0)
    return {
      verdict: 'broken',
      title: `Entry ${entry.seq} of this ledger does not hold`,
      lines: [],
      problems: problems.map(entryProblemWords),
    };
  const body = bodyOf(entry);
  const about = await ask.verifyCode.all({ id });
  const notes = about.map((a) => ({ ...a, body: bodyOf(a) }));
  const gone = notes.find((n) => n.kind === 'void');
  return {
    verdict: gone ? 'void' : 'holds',
    problems: [],
    title: gone
      ? `${entryTitle(entry.kind)} ${entry.seq} is void`
      : `${entryTitle(entry.kind)} ${entry.seq} stands in this ledger as it was signed`,
    lines: [
      ...(gone
        ? [
            `Voided on ${dateText(gone.body.signedOn)} by ${gone.body.signer.name}, entry ${gone.seq}: ${gone.body.text}`,
          ]
        : []),
      ...(body.pilot ? [`Pilot ${body.pilot.name}${body.goals ? `: ${list(body.goals.map(say))}` : ''}`] : []),
      ...(body.airframe ? [`${body.airframe.registration} ${body.airframe.type}`] : []),
      `Signed by ${body.signer.name} on ${dateText(body.signedOn ?? entry.signedAt)}`,
      ...markLines(body),
      ...(body.items?.some((i) => i.overridden)
        ? [`Signed with an override of ${list(body.items.filter((i) => i.overridden).map((i) => i.id))}`]
        : []),
      ...(body.validThrough ? [`The recommendation holds to ${dateText(body.validThrough)}`] : []),
      ...notes
        .filter((n) => n.kind === 'correction')
        .map((n) => `Corrected on ${dateText(n.body.signedOn)}: ${n.body.text}`),
      ...notes
        .filter((n) => n.kind === 'test-result')
        .map((n) => `Examiner’s result of ${dateText(n.body.testOn ?? n.body.signedOn)}: ${n.body.result ?? ''}`),
    ],
  };
}

/**
 * A PDF of an entry, the JSON attached to it, or an export of the ledger.
 * @param of how long and how much: less for whom nobody knows
 */
export async function verifyFile(bytes: Buffer, of: { limitMs: number; mostEntries: number }): Promise<VerifyAnswer> {
  const done = await checkInThread({ bytes, trusted: publicKeys(), mostEntries: of.mostEntries }, of.limitMs);
  if (!done.attached)
    return {
      verdict: 'unreadable',
      title: 'This PDF carries no signed entry',
      lines: ['Give the PDF as it came from here: a scan or a print of it carries nothing. Type its code instead.'],
      problems: [],
    };
  const found = done.checked;
  if (found.what === 'unreadable')
    return { verdict: 'unreadable', title: 'This file cannot be checked', lines: found.problems, problems: [] };
  if (found.problems.length > 0)
    return {
      verdict: 'broken',
      title: found.what === 'entry' ? 'This entry does not hold: it was changed' : 'This ledger does not hold',
      lines: found.line ? [found.line] : [],
      problems: found.problems.slice(0, 20),
    };
  if (found.ownKeyOnly)
    return {
      verdict: 'not-here',
      title: 'Not from this ledger',
      lines: ['The file fits together, but it is signed with a key this ledger never had.'],
      problems: [],
    };
  if (found.what === 'ledger') {
    const last = await ask.verifyFile.one();
    return {
      verdict: 'holds',
      title: `All ${found.entries} entries of this export hold`,
      lines: [`Chain, signatures and signed head fit. The ledger has ${last?.n ?? 0} entries now.`],
      problems: [],
    };
  }
  return found.entry ? verifyCode(found.entry.id, found.entry.hash) : NOT_HERE;
}
