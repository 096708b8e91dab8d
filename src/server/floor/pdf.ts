import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, type PDFPage, type RGB, rgb } from 'pdf-lib';
import { Face } from './pdf-face';

/** Paper, pen and the shipped fonts for everything Jeito prints. Points; black on white reads at arm's length. */
export const A4 = { w: 595.28, h: 841.89 };
export const A5 = { w: 419.53, h: 595.28 };
export const INK = rgb(0.086, 0.149, 0.227);
export const SLATE = rgb(0.333, 0.392, 0.435);
export const BLACK = rgb(0, 0, 0);

export interface Fonts {
  regular: Face;
  bold: Face;
  mono: Face;
  monoBold: Face;
}

/** A paper and its type; `said` is what will be written on it, so that the fonts it needs come along and no others. */
export async function newPdf(title: string, at: string, said: unknown): Promise<{ pdf: PDFDocument; fonts: Fonts }> {
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  const text = `${title}${JSON.stringify(said)}()`;
  const fonts: Fonts = {
    regular: await Face.of(pdf, ['b612', 'b612-latin'], 400, text),
    bold: await Face.of(pdf, ['b612', 'b612-latin'], 700, text),
    mono: await Face.of(pdf, ['b612-mono', 'b612-mono-latin'], 400, text),
    monoBold: await Face.of(pdf, ['b612-mono', 'b612-mono-latin'], 700, text),
  };
  pdf.setTitle(title);
  pdf.setCreator('Jeito');
  pdf.setCreationDate(new Date(at));
  pdf.setModificationDate(new Date(at));
  return { pdf, fonts };
}

export interface Style {
  font?: Face;
  size?: number;
  gap?: number;
  color?: RGB;
  indent?: number;
  /** Points kept free at the right. */
  right?: number;
}

/** Writes lines down the page, wrapped, onto as many pages as it takes. */
export class Pen {
  page: PDFPage;
  y: number;
  constructor(
    private readonly pdf: PDFDocument,
    readonly fonts: Fonts,
    private readonly paper: { w: number; h: number },
    readonly margin: number,
  ) {
    this.page = pdf.addPage([paper.w, paper.h]);
    this.y = paper.h - margin;
  }
  get width(): number {
    return this.paper.w - 2 * this.margin;
  }
  newPage(): void {
    this.page = this.pdf.addPage([this.paper.w, this.paper.h]);
    this.y = this.paper.h - this.margin;
  }
  space(points: number): void {
    this.y -= points;
  }
  rule(color: RGB = BLACK, thickness = 0.8): void {
    this.page.drawLine({
      start: { x: this.margin, y: this.y },
      end: { x: this.margin + this.width, y: this.y },
      thickness,
      color,
    });
  }
  text(text: string, x: number, { font: face = this.fonts.regular, size = 10, color = INK }: Style = {}): void {
    face.draw(this.page, text, { x: this.margin + x, y: this.y, size, color });
  }
  line(
    text: string,
    { font: face = this.fonts.regular, size = 10, gap = 3, color = INK, indent = 0, right = 0 }: Style = {},
  ): void {
    for (const part of wrap(text.replaceAll('\u00a0', ' '), face, size, this.width - indent - right)) {
      if (this.y - size < this.margin) this.newPage();
      this.y -= size * 1.25;
      face.draw(this.page, part, { x: this.margin + indent, y: this.y, size, color });
    }
    this.y -= gap;
  }
}

export function wrap(text: string, face: Face, size: number, width: number): string[] {
  const lines: string[] = [];
  let now = '';
  for (const word of text.split(' ')) {
    const next = now === '' ? word : `${now} ${word}`;
    if (now !== '' && face.widthOfTextAtSize(next, size) > width) {
      lines.push(now);
      now = word;
    } else now = next;
  }
  return [...lines, now];
}
