import { inflateSync } from 'node:zlib';
import fontkit from '@pdf-lib/fontkit';
import { PDFDict, PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/**
 * Glyphs with an outline in the fonts inside a PDF. Text can be read back from a file whose fonts no viewer can draw:
 * this cannot.
 */
export async function outlines(bytes: Uint8Array): Promise<number> {
  const pdf = await PDFDocument.load(bytes);
  let drawn = 0;
  for (const [, object] of pdf.context.enumerateIndirectObjects()) {
    const file = object instanceof PDFDict ? object.get(PDFName.of('FontFile2')) : undefined;
    const stream = file ? pdf.context.lookup(file) : undefined;
    if (!(stream instanceof PDFRawStream)) continue;
    const font = fontkit.create(inflateSync(stream.contents)) as unknown as {
      numGlyphs: number;
      getGlyph: (id: number) => { path: { commands: unknown[] } };
    };
    for (let id = 0; id < font.numGlyphs; id++) if (font.getGlyph(id).path.commands.length > 0) drawn++;
  }
  return drawn;
}

/** The words of a PDF, page by page, as they are read: pieces that touch are one word, whatever font draws each. */
export async function pagesOf(bytes: Uint8Array): Promise<string[]> {
  const pdf = await getDocument({ data: Uint8Array.from(bytes), verbosity: 0, useSystemFonts: false }).promise;
  const pages: string[] = [];
  for (let n = 1; n <= pdf.numPages; n++) {
    let text = '';
    let end = { x: Number.NaN, y: Number.NaN };
    for (const item of (await (await pdf.getPage(n)).getTextContent()).items) {
      if (!('str' in item) || item.str === '') continue;
      const [x = 0, y = 0] = (item.transform as number[]).slice(4);
      text += Math.abs(y - end.y) < 0.5 && Math.abs(x - end.x) < 0.6 ? item.str : ` ${item.str}`;
      end = { x: x + item.width, y };
    }
    pages.push(text.replace(/\s+/g, ' ').trim());
  }
  return pages;
}
