import { inflateSync } from 'node:zlib';
import fontkit from '@pdf-lib/fontkit';
import { PDFDict, PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';

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
