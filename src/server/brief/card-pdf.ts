import type { Card } from '@/core/approach';
import { A5, BLACK, Pen, newPdf } from '../pdf';

/** The kneeboard card as an A5 PDF, two sides, black on white. */
export async function cardPdf(card: Card, savedAt: string): Promise<Uint8Array> {
  const { pdf, fonts } = await newPdf(`${card.title}, ${card.line}`, savedAt);
  const pen = new Pen(pdf, fonts, A5, 24);
  const black = { color: BLACK };
  const head = (side: string) => {
    pen.line(card.title, { font: fonts.bold, size: 15, gap: 0, ...black });
    pen.line(`${card.line}, ${side}`, { size: 10.5, gap: 1, ...black });
    pen.line(card.revision, { size: 7.5, gap: 4, ...black });
    pen.rule();
  };
  head('front');
  for (const w of card.warnings) pen.line(`! ${w}`, { font: fonts.bold, size: 9.5, gap: 1, ...black });
  pen.space(4);
  for (const g of card.gates) {
    pen.space(19);
    pen.text(g.name, 0, { font: fonts.bold, size: 11, ...black });
    pen.text(g.speed, 66, { font: fonts.monoBold, size: 16, ...black });
    pen.text(g.height, 152, { font: fonts.mono, size: 10.5, ...black });
    pen.text(g.altimeter, 208, { font: fonts.mono, size: 10.5, ...black });
    pen.text(g.configuration, 282, { size: 10, ...black });
    pen.space(11);
    pen.text(g.power, 66, { size: 9, ...black });
    pen.space(4);
    pen.rule(BLACK, 0.3);
  }
  pen.space(4);
  for (const s of card.front) section(pen, s.title, s.lines);
  pen.newPage();
  head('back');
  for (const s of card.back) section(pen, s.title, s.lines);
  tally(pen, card);
  pen.space(4);
  pen.line(card.caution, { size: 8, ...black });
  return pdf.save();
}

function section(pen: Pen, title: string, lines: readonly string[]): void {
  pen.line(title, { font: pen.fonts.bold, size: 11.5, gap: 0, color: BLACK });
  for (const l of lines) pen.line(l, { size: 10.5, gap: 1, color: BLACK, indent: 8 });
  pen.space(3);
}

function tally(pen: Pen, { tally: t }: Card): void {
  const rowH = 15;
  const needed = (t.rows + 1) * rowH + t.columns.length * 9 + 20;
  if (pen.y - needed < pen.margin) pen.newPage();
  const first = 22;
  const w = (pen.width - first) / t.columns.length;
  pen.line('Paper tally, same codes as the screen', { font: pen.fonts.bold, size: 10, gap: 2, color: BLACK });
  const top = pen.y;
  pen.space(10);
  t.columns.forEach((c, i) => pen.text(c.head, first + i * w + 2, { size: 7.5, color: BLACK }));
  pen.space(4);
  for (let r = 0; r <= t.rows; r++) {
    pen.rule(BLACK, 0.4);
    if (r === t.rows) break;
    pen.space(rowH);
    pen.y += 4;
    pen.text(String(r + 1), 4, { font: pen.fonts.mono, size: 9, color: BLACK });
    pen.y -= 4;
  }
  for (let i = 0; i <= t.columns.length; i++) pen.page.drawLine({ start: { x: pen.margin + first + i * w, y: top }, end: { x: pen.margin + first + i * w, y: pen.y }, thickness: 0.4, color: BLACK });
  pen.space(2);
  for (const c of t.columns) pen.line(`${c.head}: ${c.codes}`, { size: 7, gap: 0, color: BLACK });
}
