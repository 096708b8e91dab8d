import { toBuffer } from 'qrcode';
import { dateText, list, localText } from '@/core/format';
import type { LedgerRow } from '@/core/ledger';
import type { Limitations } from '@/domain/ledger';
import { say } from '@/domain/words';
import type { LedgerLine } from '../queries/entries';
import { A4, Pen, SLATE, newPdf } from '../../floor/pdf';
import { publicKeys, readHead } from '../keys';
import { markLines } from '../marks';
import { entryTitle } from '../titles';
import { countsText, itemWords } from '../words';

/** Where a printed code leads: the page that checks it, with the entry and its hash. */
export const codeAddress = (origin: string, entry: Pick<LedgerRow, 'id' | 'hash'>): string =>
  `${origin}/verify?e=${entry.id}&h=${entry.hash}`;

/**
 * What a copy of an entry carries, so that it can be checked away from here: the entry, the signed head, and the public
 * key it names.
 */
export function signedEntry(entry: LedgerRow): {
  schema: 'signed-entry/1';
  entry: LedgerRow;
  head: ReturnType<typeof readHead>;
  publicKeys: Record<string, string>;
} {
  const key = publicKeys()[entry.keyId];
  return { schema: 'signed-entry/1', entry, head: readHead(), publicKeys: key ? { [entry.keyId]: key } : {} };
}

/**
 * An entry as a PDF: what was signed, what it rests on, what was said of it later, a code that leads to its check, and
 * the signed text attached.
 */
export async function entryPdf(line: LedgerLine, entry: LedgerRow, origin: string): Promise<Uint8Array> {
  const { pdf, fonts } = await newPdf(`${entryTitle(line.kind)} ${entry.seq}: ${line.pilotName}`, entry.signedAt, [
    line,
    entry,
  ]);
  const { bold, mono } = fonts;
  const pen = new Pen(pdf, fonts, A4, 48);
  const { body, later } = line;
  const qr = await pdf.embedPng(
    await toBuffer(codeAddress(origin, entry), { errorCorrectionLevel: 'M', margin: 1, width: 360 }),
  );
  const side = 92;
  pen.page.drawImage(qr, { x: A4.w - 48 - side, y: A4.h - 48 - side, width: side, height: side });
  const head = { right: side + 14 };
  pen.line(`${entryTitle(line.kind)} ${entry.seq}`, { font: bold, size: 20, gap: 6, ...head });
  if (line.voidedBy)
    pen.line(
      `VOID by entry ${line.voidedBy.seq} of ${dateText(line.voidedBy.on)}, ${line.voidedBy.by}: ${line.voidedBy.text}`,
      { font: bold, size: 11, gap: 6, ...head },
    );
  pen.line(`${line.pilotName}${line.goals.length > 0 ? `: ${list(line.goals.map(say))}` : ''}`, {
    font: bold,
    size: 14,
    ...head,
  });
  pen.line(
    `${line.registration} ${line.type}${body ? `, type sheet version ${body.airframe.typeVersion}, airframe version ${body.airframe.airframeVersion}` : ''}`,
    head,
  );
  const at = localText(entry.signedAt, line.timeZone ?? 'UTC');
  pen.line(`Signed by ${line.signerName}, ${at}`, { gap: 6, ...head });
  pen.line('The code leads to the page that checks this sheet.', { size: 8.5, color: SLATE, gap: 4, ...head });
  pen.y = Math.min(pen.y, A4.h - 48 - side - 10);

  for (const mark of markLines(body ?? later)) pen.line(mark, { font: bold });
  for (const c of line.corrections)
    pen.line(`Corrected by entry ${c.seq} of ${dateText(c.on)}, ${c.by}: ${c.text}`, { font: bold });
  for (const r of line.results)
    pen.line(`Examiner\u2019s result, entry ${r.seq}: ${r.result} on ${dateText(r.testOn)}, ${r.examiner}.`, {
      font: bold,
    });
  if (later) {
    pen.line(
      `Speaks of entry ${later.of.seq}, ${entryTitle(later.of.kind).toLowerCase()}, ${later.of.hash.slice(0, 16)}`,
      { gap: 8 },
    );
    if (later.result)
      pen.line(
        `${later.result === 'passed' ? 'Passed' : 'Not passed'} on ${dateText(later.testOn ?? '')}. Examiner: ${later.examiner ?? ''}${later.reference ? `, ${later.reference}` : ''}`,
        { font: bold, size: 12 },
      );
    for (const part of later.text.split('\n')) pen.line(part, { gap: 4 });
  }
  if (body) {
    if (body.text) for (const part of body.text.split('\n')) pen.line(part, { size: 11, gap: 4 });
    if (body.signature) {
      const drawn = await pdf.embedPng(body.signature);
      const scale = Math.min(180 / drawn.width, 54 / drawn.height);
      pen.y -= drawn.height * scale + 4;
      pen.page.drawImage(drawn, { x: pen.margin, y: pen.y, width: drawn.width * scale, height: drawn.height * scale });
      pen.space(4);
    }
    pen.space(4);
    pen.line(body.rules.name, { font: bold });
    for (const c of body.rules.citations)
      pen.line(
        `${c.title ?? say(c.goal)}: ${c.citation}. ${c.written}${c.decides === 'examiner' ? ' A recommendation: an examiner decides.' : ''}${c.confirm ? ' To be confirmed against the current text.' : ''}`,
      );
    if (body.validThrough) pen.line(`The recommendation holds to ${dateText(body.validThrough)}.`, { font: bold });
    pen.line(
      `Standard ${body.standard.name} (${versionWords(body.standard.id)}); programme ${list(body.programmes.map(versionWords))}; ${countsText(body.counts)}, ${body.counts.own} landings the pilot\u2019s own and in standard.`,
      { gap: 8 },
    );
    if (line.kind === 'sign-off' || line.kind === 'recommendation') {
      pen.line('Limitations', { font: bold });
      pen.line(limitationText(body.limitations), { gap: body.remark ? 2 : 8 });
    }
    if (body.remark) pen.line(`Remark: ${body.remark}`, { gap: 8 });
    const without = body.items.filter((i) => i.overridden);
    if (without.length > 0) {
      pen.line('Signed without their evidence', { font: bold });
      for (const i of without) pen.line(`${i.id}  ${i.title}: ${itemWords(i).text}`, { gap: 4 });
      pen.space(4);
    }
    if (body.stops && body.stops.length > 0) {
      pen.line('Flown past a stop, and no evidence of a safety item', { font: bold });
      for (const s of body.stops)
        pen.line(`${s.name}: ${s.words}. Why: ${s.reason ?? 'not said'}`, { size: 9, gap: 2 });
      pen.space(4);
    }
    pen.line(line.kind === 'not-yet' ? 'Items not met' : 'Items and their evidence', { font: bold });
    for (const item of body.items.filter((i) => !i.overridden))
      pen.line(`${item.id}  ${item.title}: ${itemWords(item).text}. ${item.citation}`, { size: 9 });
    if (body.landings.length > 0) {
      pen.space(6);
      pen.line('Landings in evidence', { font: bold });
      for (const l of body.landings)
        pen.line(
          `${dateText(l.date)}  ${l.lesson}.${l.number}  ${say(l.kind)}${l.intended && l.kind !== 'go-around' ? `, ${say(l.intended)}` : ''}${l.surface === 'water' ? ', water' : ''}${l.class === l.kind ? '' : `: ${say(l.class)}`}${l.crosswindKt === null ? '' : `, crosswind ${Math.abs(l.crosswindKt)} kt from the ${l.crosswindKt >= 0 ? 'right' : 'left'}`}${l.asserted ? `, based on the clean tap: ${l.asserted.map(say).join(', ')}` : ''}`,
          { size: 8.5, gap: 1 },
        );
    }
  }
  pen.space(6);
  pen.line(
    `The flight manual, the placards, the law of the place and the instructor in the seat outrank this sheet. ${body?.rules.caution ?? 'Check the current text; the authority\u2019s wording governs.'}`,
    { size: 9, color: SLATE, gap: 6 },
  );
  pen.line(`Entry ${entry.id}`, { font: mono, size: 7.5, gap: 1 });
  pen.line(`SHA-256 ${entry.hash}`, { font: mono, size: 7.5, gap: 1 });
  pen.line(`Ed25519 ${entry.signature.slice(0, 44)}`, { font: mono, size: 7.5, gap: 0 });
  pen.line(`        ${entry.signature.slice(44)} key ${entry.keyId}`, { font: mono, size: 7.5 });
  await pdf.attach(new TextEncoder().encode(JSON.stringify(signedEntry(entry), null, 2)), 'entry.json', {
    mimeType: 'application/json',
    description: 'The signed entry and the signed head of the ledger',
  });
  return pdf.save();
}

/** `programme:tailwheel-us:2` as `tailwheel-us, version 2`. */
export const versionWords = (id: string): string => id.replace(/^[a-z]+:(.+):(\d+)$/, '$1, version $2');

export function limitationText(l: Limitations): string {
  const parts = [
    l.alone ? 'alone on board' : '',
    l.noPassengers ? 'no passengers' : '',
    l.crosswindKt === null ? '' : `crosswind up to ${l.crosswindKt} kt`,
    l.attitude === 'any' ? '' : `${say(l.attitude)} landings only`,
    l.surface === 'any' ? '' : `${l.surface} only`,
  ].filter(Boolean);
  const until = l.untilHours === null ? '' : ` until ${l.untilHours} h on type`;
  return parts.length === 0 ? 'None.' : `${list(parts)}${until}.`;
}
