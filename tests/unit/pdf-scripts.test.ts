import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import { A4, Pen, newPdf } from '@/server/floor/pdf';
import { outlines } from '../server/pdf';

const NAMES = {
  'Latin extended': 'Łukasz Żółć-Nováčková Şahin Ștefan',
  Greek: 'Ελένη Παπαδοπούλου',
  Cyrillic: 'Ярослава Їжакевич',
  Hebrew: 'דוד בן-ארי',
  Vietnamese: 'Nguyễn Thị Phượng Đỗ',
  Devanagari: 'अनन्या',
};

async function printed(lines: readonly string[]): Promise<Uint8Array> {
  const { pdf, fonts } = await newPdf('Names', '2026-11-24T14:30:00.000Z', lines);
  const pen = new Pen(pdf, fonts, A4, 48);
  for (const l of lines) pen.line(l, { font: fonts.bold });
  return pdf.save();
}
async function read(bytes: Uint8Array): Promise<string[]> {
  const page = await (await getDocument({ data: Uint8Array.from(bytes) }).promise).getPage(1);
  const rows = new Map<number, string>();
  for (const item of (await page.getTextContent()).items)
    if ('str' in item) {
      const y = Math.round((item.transform as number[])[5] ?? 0);
      rows.set(y, (rows.get(y) ?? '') + item.str);
    }
  return [...rows.values()];
}

describe('names on paper, in any script', () => {
  it.each(Object.entries(NAMES))('%s: every letter has an outline and is read back', async (_script, name) => {
    const bytes = await printed([name]);
    expect(await outlines(bytes)).toBeGreaterThanOrEqual(new Set(name.replace(/\s/g, '')).size - 1);
    // A letter drawn as two signs is read back as itself and a sign of no letter.
    const said = (await read(bytes)).join('').replace(/[\s\p{Cc}]/gu, '');
    expect([...said].sort().join('')).toBe([...name.normalize('NFC').replace(/\s/g, '')].sort().join(''));
  });

  it('Hebrew is drawn from right to left among Latin, figures as they are read', async () => {
    // Where each piece stands, from the left: the second word of the name, then the first, in a line of Latin.
    const page = await (await getDocument({ data: await printed(['Pilot: אבג דה 12, passed']) }).promise).getPage(1);
    const at = (text: string) => pieces.find((p) => p.str.includes(text))?.transform[4] ?? Number.NaN;
    const pieces = (await page.getTextContent()).items as { str: string; transform: number[] }[];
    expect(at('Pilot')).toBeLessThan(at('דה'));
    expect(at('דה')).toBeLessThan(at('אבג'));
    expect(at('אבג')).toBeLessThan(at('passed'));
  });

  it('a script no font has is drawn as boxes, and the paper is made', async () => {
    expect((await printed(['محمد 田中', 'Helena'])).length).toBeGreaterThan(1000);
  });

  it('takes no font that is not needed', async () => {
    const plain = await printed(['Helena Serpa Dorna']);
    const wide = await printed([Object.values(NAMES).join(' ')]);
    expect(plain.length).toBeLessThan(30_000);
    expect(wide.length).toBeLessThan(120_000);
  });
});
