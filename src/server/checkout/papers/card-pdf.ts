import type { Card } from '@/core/approach';
import { clip, endPath, popGraphicsState, pushGraphicsState, rectangle, rgb } from 'pdf-lib';
import type { Shape } from '@/core/sightpicture';
import { A5, BLACK, Pen, newPdf } from '../../floor/pdf';

/**
 * Sizes tried until the card fits its two sides; below the last it would not be read in the air, and runs on instead.
 */
const SCALES = [1, 0.95, 0.9, 0.85, 0.8];

/** The kneeboard card as an A5 PDF, two sides, black on white. */
export async function cardPdf(card: Card, savedAt: string): Promise<Uint8Array> {
  for (const k of SCALES) {
    const pdf = await drawCard(card, savedAt, k);
    if (pdf.getPageCount() === 2 || k === SCALES[SCALES.length - 1]) return pdf.save();
  }
  throw new Error('a card has at least one size');
}

async function drawCard(card: Card, savedAt: string, k: number) {
  const { pdf, fonts } = await newPdf(`${card.title}, ${card.line}`, savedAt, card);
  const pen = new Pen(pdf, fonts, A5, 24 * k);
  const black = { color: BLACK };
  const head = (side: string) => {
    pen.line(card.title, { font: fonts.bold, size: 15 * k, gap: 0, ...black });
    pen.line(`${card.line}, ${side}`, { size: 10.5 * k, gap: 1, ...black });
    pen.line(card.revision, { size: 7.5, gap: 4 * k, ...black });
    pen.rule();
  };
  head('front');
  for (const w of card.warnings) pen.line(`! ${w}`, { font: fonts.bold, size: 9.5 * k, gap: 1, ...black });
  pen.space(4 * k);
  for (const g of card.gates) {
    pen.space(19 * k);
    pen.text(g.name, 0, { font: fonts.bold, size: 11, ...black });
    pen.text(g.speed, 66, { font: fonts.monoBold, size: 16, ...black });
    pen.text(g.height, 152, { font: fonts.mono, size: 10.5, ...black });
    pen.text(g.altimeter, 208, { font: fonts.mono, size: 10.5, ...black });
    pen.text(g.configuration, 282, { size: 10, ...black });
    pen.space(11 * k);
    pen.text(g.power, 66, { size: 9, ...black });
    pen.space(4 * k);
    pen.rule(BLACK, 0.3);
  }
  pen.space(4 * k);
  for (const s of card.front) section(pen, s.title, s.lines, k);
  pen.newPage();
  head('back');
  for (const s of card.back) section(pen, s.title, s.lines, k);
  pictures(pen, card);
  tally(pen, card, k);
  pen.space(4 * k);
  pen.line(card.caution, { size: 8 * k, ...black });
  return pdf;
}

function section(pen: Pen, title: string, lines: readonly string[], k: number): void {
  pen.line(title, { font: pen.fonts.bold, size: 11.5 * k, gap: 0, color: BLACK });
  for (const l of lines) pen.line(l, { size: 10.5 * k, gap: 1 * k, color: BLACK, indent: 8 });
  pen.space(3 * k);
}

const GREY = rgb(0.62, 0.62, 0.62);
const FILL: Partial<Record<Shape['id'], typeof GREY>> = {
  runway: rgb(0.85, 0.85, 0.85),
  nose: GREY,
  threshold: rgb(1, 1, 1),
  centreline: rgb(1, 1, 1),
  aim: BLACK,
};

/** The strip of pictures, one beside the other, each clipped to its frame. */
function pictures(pen: Pen, { pictures: strip }: Card): void {
  if (strip.length === 0) return;
  pen.line('What you will see', { font: pen.fonts.bold, size: 11.5, gap: 2, color: BLACK });
  const gap = 6;
  const w = (pen.width - gap * (strip.length - 1)) / strip.length;
  const h = w * 0.62;
  const top = pen.y;
  strip.forEach((p, i) => {
    const left = pen.margin + i * (w + gap);
    const { page } = pen;
    page.pushOperators(pushGraphicsState(), rectangle(left, top - h, w, h), clip(), endPath());
    // Glass units to points, y down from the top left of the frame.
    const at = (q: { x: number; y: number }) =>
      `${((w / 2) * (1 + q.x)).toFixed(2)} ${(h * 0.44 + (w / 2) * q.y).toFixed(2)}`;
    const draw = (path: string, fill: typeof GREY | undefined, borderWidth: number) =>
      page.drawSvgPath(path, { x: left, y: top, borderColor: BLACK, borderWidth, ...(fill ? { color: fill } : {}) });
    const order: Shape['id'][] = ['runway', 'threshold', 'centreline', 'aim', 'landmark', 'part', 'nose'];
    draw(`M${at(p.scene.horizon[0])}L${at(p.scene.horizon[1])}`, undefined, 0.6);
    for (const id of order)
      for (const s of p.scene.shapes.filter((x) => x.id === id))
        draw(
          `${s.points.map((q, k) => `${k === 0 ? 'M' : 'L'}${at(q)}`).join('')}${s.closed ? 'Z' : ''}`,
          s.closed ? FILL[id] : undefined,
          id === 'part' ? 1.6 : 0.6,
        );
    page.pushOperators(popGraphicsState());
    page.drawRectangle({ x: left, y: top - h, width: w, height: h, borderColor: BLACK, borderWidth: 0.6 });
    pen.fonts.bold.draw(page, p.title, { x: left, y: top - h - 9, size: 8, color: BLACK });
    pen.fonts.regular.draw(page, p.line, { x: left, y: top - h - 18, size: 7, color: BLACK });
  });
  pen.space(h + 24);
}

function tally(pen: Pen, { tally: t }: Card, k: number): void {
  const rowH = 15 * k;
  const needed = (t.rows + 1) * rowH + t.columns.length * 9 * k + 20;
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
  for (let i = 0; i <= t.columns.length; i++)
    pen.page.drawLine({
      start: { x: pen.margin + first + i * w, y: top },
      end: { x: pen.margin + first + i * w, y: pen.y },
      thickness: 0.4,
      color: BLACK,
    });
  pen.space(2);
  for (const c of t.columns) pen.line(`${c.head}: ${c.codes}`, { size: 7 * k, gap: 0, color: BLACK });
}
