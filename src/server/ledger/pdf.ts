import { dateText, instantText, list, plural } from '@/core/format';
import type { LedgerRow } from '@/core/ledger';
import { say } from '@/domain/words';
import type { SignOffBody } from '../commands/sign';
import { A4, Pen, SLATE, newPdf } from '../pdf';
import { readHead } from './keys';

/** The sign-off as a PDF, with the signed text of the entry attached so that the sheet can be checked against the book. */
export async function signOffPdf(entry: LedgerRow): Promise<Uint8Array> {
  const { body } = JSON.parse(entry.canonical) as { body: SignOffBody };
  const { pdf, fonts } = await newPdf(`Sign-off ${entry.seq}: ${body.pilot.name}`, entry.signedAt);
  const { bold, mono } = fonts;
  const pen = new Pen(pdf, fonts, A4, 48);

  pen.line(`Sign-off ${entry.seq}`, { font: bold, size: 20, gap: 8 });
  pen.line(`${body.pilot.name}: ${list(body.goals.map(say))}`, { font: bold, size: 14 });
  pen.line(`${body.airframe.registration} ${body.airframe.type}, type sheet version ${body.airframe.typeVersion}, airframe version ${body.airframe.airframeVersion}`);
  pen.line(`Signed by ${body.signer.name} on ${instantText(entry.signedAt)}`, { gap: 10 });
  pen.line(body.rules.name, { font: bold });
  for (const c of body.rules.citations) pen.line(`${say(c.goal)}: ${c.citation}. ${c.written} ${c.decides === 'examiner' ? 'A recommendation: an examiner decides.' : ''}`);
  pen.line(`Standard ${body.standard.name} (${body.standard.id}); ${plural(body.counts.lessons, 'lesson')}, ${plural(body.counts.landings, 'landing')}, ${body.counts.own} the pilot\u2019s own and in standard.`, { gap: 10 });
  pen.line('Limitations', { font: bold });
  pen.line(limitationText(body.limitations), { gap: body.remark ? 2 : 10 });
  if (body.remark) pen.line(`Remark: ${body.remark}`, { gap: 10 });
  pen.line('Items and what they rest on', { font: bold });
  for (const item of body.items) pen.line(`${item.id}  ${item.title}: ${item.waived ? `waived, ${item.waived}` : item.have}. ${item.citation}`, { size: 9 });
  pen.space(8);
  pen.line('Landings in evidence', { font: bold });
  for (const l of body.landings) pen.line(`${dateText(l.date)}  ${l.lesson}.${l.number}  ${say(l.kind)}${l.intended ? `, ${say(l.intended)}` : ''}: ${say(l.class)}${l.crosswindKt === null ? '' : `, crosswind ${Math.abs(l.crosswindKt)} kt from the ${l.crosswindKt >= 0 ? 'right' : 'left'}`}`, { size: 8.5 });
  pen.space(8);
  pen.line('The flight manual, the placards, the law of the place and the instructor in the seat outrank this sheet. Check the current text of the rules; the authority\u2019s wording governs.', { size: 9, color: SLATE, gap: 8 });
  pen.line(`Entry ${entry.id}`, { font: mono, size: 7.5 });
  pen.line(`SHA-256 ${entry.hash}`, { font: mono, size: 7.5 });
  pen.line(`Ed25519 ${entry.signature.slice(0, 44)}`, { font: mono, size: 7.5, gap: 0 });
  pen.line(`        ${entry.signature.slice(44)} key ${entry.keyId}`, { font: mono, size: 7.5 });
  await pdf.attach(new TextEncoder().encode(JSON.stringify({ schema: 'signed-entry/1', entry, head: readHead() }, null, 2)), 'entry.json', { mimeType: 'application/json', description: 'The signed entry and the signed head of the book' });
  return pdf.save();
}

export function limitationText(l: SignOffBody['limitations']): string {
  const parts = [
    l.alone ? 'alone on board' : '', l.noPassengers ? 'no passengers' : '', l.crosswindKt === null ? '' : `crosswind up to ${l.crosswindKt} kt`,
    l.attitude === 'any' ? '' : `${say(l.attitude)} landings only`, l.surface === 'any' ? '' : `${l.surface} only`,
  ].filter(Boolean);
  const until = l.untilHours === null ? '' : ` until ${l.untilHours} h on type`;
  return parts.length === 0 ? 'None.' : `${list(parts)}${until}.`;
}
