import { readFileSync } from 'node:fs';
import path from 'node:path';
import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, type PDFFont, type PDFPage, rgb } from 'pdf-lib';
import { dateText, instantText, list, plural } from '@/core/format';
import type { LedgerRow } from '@/core/ledger';
import { say } from '@/domain/words';
import type { SignOffBody } from '../commands/sign';
import { readHead } from './keys';

const font = (pkg: string, name: string): Buffer => readFileSync(path.join(process.cwd(), 'node_modules/@fontsource', pkg, 'files', name));
const A4 = { w: 595.28, h: 841.89, margin: 48 };
const INK = rgb(0.086, 0.149, 0.227);
const SLATE = rgb(0.333, 0.392, 0.435);

/** The sign-off as a PDF, with the signed text of the entry attached so that the sheet can be checked against the book. */
export async function signOffPdf(entry: LedgerRow): Promise<Uint8Array> {
  const { body } = JSON.parse(entry.canonical) as { body: SignOffBody };
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  const regular = await pdf.embedFont(font('b612', 'b612-latin-400-normal.woff2'), { subset: false });
  const bold = await pdf.embedFont(font('b612', 'b612-latin-700-normal.woff2'), { subset: false });
  const mono = await pdf.embedFont(font('b612-mono', 'b612-mono-latin-400-normal.woff2'), { subset: false });
  pdf.setTitle(`Sign-off ${entry.seq}: ${body.pilot.name}`);
  pdf.setCreator('Jeito');
  pdf.setCreationDate(new Date(entry.signedAt));
  pdf.setModificationDate(new Date(entry.signedAt));
  const pen = new Pen(pdf, { regular, bold, mono });

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

/** Writes lines down the page, wrapped, onto as many pages as it takes. */
class Pen {
  private page: PDFPage;
  private y = A4.h - A4.margin;
  constructor(private readonly pdf: PDFDocument, private readonly fonts: { regular: PDFFont; bold: PDFFont; mono: PDFFont }) {
    this.page = pdf.addPage([A4.w, A4.h]);
  }
  space(points: number): void {
    this.y -= points;
  }
  line(text: string, { font = this.fonts.regular, size = 10, gap = 3, color = INK }: { font?: PDFFont; size?: number; gap?: number; color?: ReturnType<typeof rgb> } = {}): void {
    for (const part of wrap(text.replaceAll('\u00a0', ' '), font, size, A4.w - 2 * A4.margin)) {
      if (this.y - size < A4.margin) {
        this.page = this.pdf.addPage([A4.w, A4.h]);
        this.y = A4.h - A4.margin;
      }
      this.y -= size * 1.25;
      this.page.drawText(part, { x: A4.margin, y: this.y, size, font, color });
    }
    this.y -= gap;
  }
}

function wrap(text: string, font: PDFFont, size: number, width: number): string[] {
  const lines: string[] = [];
  let now = '';
  for (const word of text.split(' ')) {
    const next = now === '' ? word : `${now} ${word}`;
    if (now !== '' && font.widthOfTextAtSize(next, size) > width) {
      lines.push(now);
      now = word;
    } else now = next;
  }
  return [...lines, now];
}
