// The text engine of the PDF library asks for it where letters join, as in Devanagari.
import 'regenerator-runtime/runtime.js';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import fontkit from '@pdf-lib/fontkit';
import bidiFactory from 'bidi-js';
import type { PDFDocument, PDFFont, PDFPage, RGB } from 'pdf-lib';
import { decompress } from 'wawoff2';

const bidi = bidiFactory();
/** A shipped web font: its package, and its file but for weight and ending. */
type Shipped = readonly [pkg: string, name: string];

/**
 * Who draws what B612 has no glyph for: names in any of these scripts are printed as they are written. Parentheses come
 * from the first: those of B612 read as brackets.
 */
const OTHERS: readonly Shipped[] = [
  ['noto-sans', 'noto-sans-latin'],
  ['noto-sans', 'noto-sans-latin-ext'],
  ['noto-sans', 'noto-sans-vietnamese'],
  ['noto-sans', 'noto-sans-greek'],
  ['noto-sans', 'noto-sans-greek-ext'],
  ['noto-sans', 'noto-sans-cyrillic'],
  ['noto-sans', 'noto-sans-cyrillic-ext'],
  ['noto-sans-hebrew', 'noto-sans-hebrew-hebrew'],
  ['noto-sans', 'noto-sans-devanagari'],
];
const NOT_B612 = /[()]/;
const HEBREW = /\p{Script=Hebrew}/u;

interface Unpacked {
  bytes: Uint8Array;
  has: Set<number>;
}
/**
 * The shipped web fonts as TrueType: a PDF cannot hold WOFF2 (viewers show nothing), so each is unpacked once per
 * process. Copied, because what the unpacker hands out lies in memory it uses again.
 */
const unpacked = new Map<string, Promise<Unpacked>>();
function font([pkg, name]: Shipped, weight: 400 | 700): Promise<Unpacked> {
  const file = `${name}-${weight}-normal.woff2`;
  const known =
    unpacked.get(file) ??
    decompress(readFileSync(path.join(process.cwd(), 'node_modules/@fontsource', pkg, 'files', file))).then((view) => {
      const bytes = Uint8Array.from(view);
      return { bytes, has: new Set(fontkit.create(bytes).characterSet) };
    });
  unpacked.set(file, known);
  return known;
}

/** A weight of type that draws every script its fonts have between them. */
export class Face {
  private constructor(private readonly fonts: readonly { font: PDFFont; has: Set<number> }[]) {}

  /** With as many fonts as the text of the paper needs. */
  static async of(pdf: PDFDocument, first: Shipped, weight: 400 | 700, text: string): Promise<Face> {
    const base = await font(first, weight);
    const fonts = [{ font: await pdf.embedFont(base.bytes, { subset: true }), has: base.has }];
    const left = new Set([...drawable(text)].filter((c) => NOT_B612.test(c) || !base.has.has(c.codePointAt(0) ?? 0)));
    for (const c of ' \n\t') left.delete(c);
    for (const other of OTHERS) {
      if (left.size === 0) break;
      const { bytes, has } = await font(other, weight);
      const drawn = [...left].filter((c) => has.has(c.codePointAt(0) ?? 0));
      if (drawn.length === 0) continue;
      for (const c of drawn) left.delete(c);
      fonts.push({ font: await pdf.embedFont(bytes, { subset: true }), has });
    }
    return new Face(fonts);
  }

  /** The text in the order it is drawn from left to right, in pieces of one font each. */
  private pieces(text: string): { font: PDFFont; text: string }[] {
    const said = drawable(text);
    const shown = bidi.getReorderedString(said, bidi.getEmbeddingLevels(said, 'ltr'));
    const out: { font: PDFFont; text: string }[] = [];
    const [base, ...others] = this.fonts;
    if (!base) return out;
    for (const c of shown) {
      const point = c.codePointAt(0) ?? 0;
      const other = others.find((f) => f.has.has(point));
      const own = other && (NOT_B612.test(c) || !base.has.has(point)) ? other.font : base.font;
      const last = out[out.length - 1];
      if (last?.font === own) last.text += c;
      else out.push({ font: own, text: c });
    }
    // The text engine turns a piece of Hebrew round by itself.
    return out.map((p) => (HEBREW.test(p.text) ? { ...p, text: [...p.text].reverse().join('') } : p));
  }

  widthOfTextAtSize(text: string, size: number): number {
    return this.pieces(text).reduce((sum, p) => sum + p.font.widthOfTextAtSize(p.text, size), 0);
  }

  draw(page: PDFPage, text: string, at: { x: number; y: number; size: number; color: RGB }): void {
    let { x } = at;
    for (const p of this.pieces(text)) {
      page.drawText(p.text, { ...at, x, font: p.font });
      x += p.font.widthOfTextAtSize(p.text, at.size);
    }
  }
}

/** A letter and its marks as one sign, where there is one; a space that does not break is drawn as one that does. */
const drawable = (text: string): string => text.normalize('NFC').replaceAll('\u00a0', ' ');
