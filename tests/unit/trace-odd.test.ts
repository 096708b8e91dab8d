import { describe, expect, it } from 'vitest';
import { gzipSync, strToU8, zipSync } from 'fflate';
import { fromZip, readTrace, textOfBytes, unreadableWords } from '@/core/trace';

const ROWS = Array.from({ length: 60 }, (_, i) => ({
  t: new Date(Date.UTC(2026, 3, 2, 10, 0, i)).toISOString(),
  lat: (39 + i * 4e-4).toFixed(6),
  lon: (-7 - i * 2e-4).toFixed(6),
  ft: 1000 + i * 5,
}));
const csv = (
  head = 'time,latitude,longitude,alt (ft)',
  row = (r: (typeof ROWS)[number]) => `${r.t},${r.lat},${r.lon},${r.ft}`,
  end = '\n',
) => [head, ...ROWS.map(row)].join(end);
const gpx = (
  points = ROWS.map((r) => `<trkpt lat="${r.lat}" lon="${r.lon}"><ele>300</ele><time>${r.t}</time></trkpt>`).join(''),
) =>
  `<?xml version="1.0"?><gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1"><trk><trkseg>${points}</trkseg></trk></gpx>`;
const kml = [
  '<kml xmlns:gx="x"><Document><gx:Track>',
  ...ROWS.map((r) => `<when>${r.t}</when>`),
  ...ROWS.map((r) => `<gx:coord>${r.lon} ${r.lat} 300</gx:coord>`),
  '</gx:Track></Document></kml>',
].join('');
const igc = [
  'AXXX001',
  'HFDTE020426',
  ...ROWS.map(
    (_, i) =>
      `B1000${String(i).padStart(2, '0')}39${String(i * 24).padStart(5, '0')}N00700${String(i * 12).padStart(3, '0')}WA0030000310`,
  ),
].join('\r\n');
const sum = (s: string) =>
  [...s]
    .reduce((x, c) => x ^ c.charCodeAt(0), 0)
    .toString(16)
    .toUpperCase()
    .padStart(2, '0');
const rmc = (i: number) =>
  `GPRMC,1000${String(i).padStart(2, '0')},A,39${(i * 0.024).toFixed(4).padStart(7, '0')},N,00700.000,W,060.0,000.0,020426,,`;
const nmea = ROWS.map((_, i) => `$${rmc(i)}*${sum(rmc(i))}`).join('\r\n');
const cut = (s: string, share: number) => s.slice(0, Math.floor(s.length * share));
const KINDS = { csv: csv(), gpx: gpx(), kml, igc, nmea };

/** A hundred odd files: what each is, its text, and whether it can be read (null: either will do, a crash will not). */
const FILES: [name: string, text: () => string, read: boolean | null][] = [
  ...Object.entries(KINDS).flatMap(([kind, text]): typeof FILES => [
    [`${kind}, whole`, () => text, true],
    [`${kind}, half`, () => cut(text, 0.5), kind === 'gpx' || kind === 'kml' ? null : true],
    [`${kind}, its first tenth`, () => cut(text, 0.1), null],
    [`${kind}, cut in its last character`, () => text.slice(0, -1), null],
    [`${kind}, twice over`, () => `${text}\n${text}`, null],
    [`${kind}, all in capitals`, () => text.toUpperCase(), null],
    [`${kind}, noughts in it`, () => text.replace(/9/g, '9\u0000'), null],
    [`${kind}, line ends of an old machine`, () => text.replace(/\r?\n/g, '\r'), null],
    [`${kind}, empty lines between`, () => text.replace(/\n/g, '\n\n'), null],
    [`${kind}, a mark in front and blanks behind`, () => `\ufeff${text}   \n \n`, true],
    [`${kind}, backwards`, () => text.split('\n').reverse().join('\n'), null],
    [
      `${kind}, a line of a million characters in the middle`,
      () => cut(text, 0.5) + 'x'.repeat(1e6) + text.slice(Math.floor(text.length / 2)),
      null,
    ],
  ]),
  ['nothing', () => '', false],
  ['blanks', () => ' \n\t\n ', false],
  ['one character', () => '<', false],
  ['a header alone', () => 'time,latitude,longitude', false],
  ['a header and one row', () => csv().split('\n').slice(0, 2).join('\n'), false],
  ['rows alone', () => csv().split('\n').slice(1).join('\n'), null],
  ['ten thousand separators', () => ','.repeat(10_000), false],
  [
    'ten thousand columns',
    () => `${csv().split('\n')[0]},${'x,'.repeat(10_000)}\n${csv().split('\n').slice(1).join('\n')}`,
    null,
  ],
  ['a quote that never closes', () => csv().replace('2026-04-02T10:00:30', '"2026-04-02T10:00:30'), null],
  ['every cell quoted', () => csv('"time","latitude","longitude"', (r) => `"${r.t}","${r.lat}","${r.lon}"`), true],
  ['bars between', () => csv('time|latitude|longitude', (r) => `${r.t}|${r.lat}|${r.lon}`), true],
  ['tabs between', () => csv('time\tlatitude\tlongitude', (r) => `${r.t}\t${r.lat}\t${r.lon}`), true],
  [
    'decimal commas and semicolons',
    () => csv('time;latitude;longitude', (r) => `${r.t};${r.lat.replace('.', ',')};${r.lon.replace('.', ',')}`),
    true,
  ],
  ['a position of nothing', () => csv(undefined, (r) => `${r.t},,,${r.ft}`), false],
  ['positions off the earth', () => csv(undefined, (r) => `${r.t},391,-700,${r.ft}`), false],
  ['positions that are no numbers', () => csv(undefined, (r) => `${r.t},here,there,${r.ft}`), false],
  ['infinities', () => csv(undefined, (r) => `${r.t},Infinity,-Infinity,1e999`), false],
  ['every time the same', () => csv(undefined, (r) => `2026-04-02T10:00:00Z,${r.lat},${r.lon},${r.ft}`), false],
  ['times that are none', () => csv(undefined, (r) => `yesterday,${r.lat},${r.lon},${r.ft}`), false],
  ['the year 40000', () => csv(undefined, (r) => `${r.t.replace('2026', '40000')},${r.lat},${r.lon},${r.ft}`), null],
  ['no time at all', () => csv('latitude,longitude', (r) => `${r.lat},${r.lon}`), false],
  ['two columns of one name', () => csv('time,latitude,latitude,longitude', (r) => `${r.t},${r.lat},1,${r.lon}`), null],
  ['a row of two hundred cells', () => `${csv()}\n${'1,'.repeat(200)}`, true],
  [
    'a program instead of a table',
    () => 'function f() {\n  return [1, 2, 3].map((x) => x + 1);\n}\n'.repeat(30),
    false,
  ],
  ['a web page', () => '<!doctype html><html><body><p>Not found</p></body></html>', false],
  ['a document that declares entities', () => `<!DOCTYPE gpx [<!ENTITY a "b">]>${gpx()}`, false],
  [
    'entities inside entities',
    () => `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]><gpx><trk>&b;</trk></gpx>`,
    false,
  ],
  ['five thousand tags deep', () => `<gpx>${'<a>'.repeat(5000)}${'</a>'.repeat(5000)}</gpx>`, false],
  ['a GPX without points', () => gpx(''), false],
  ['GPX points without times', () => gpx(ROWS.map((r) => `<trkpt lat="${r.lat}" lon="${r.lon}"/>`).join('')), false],
  ['a GPX point without a place', () => gpx(`<trkpt><time>${ROWS[0]?.t ?? ''}</time></trkpt>`), false],
  [
    'a KML line without times',
    () => '<kml><LineString><coordinates>1,2,3 2,3,4</coordinates></LineString></kml>',
    false,
  ],
  ['KML with more times than places', () => kml.replace(/<gx:coord>[^<]*<\/gx:coord>/, ''), null],
  ['IGC without fixes', () => 'AXXX001\r\nHFDTE020426', false],
  ['IGC whose extensions lie beyond its lines', () => igc.replace('HFDTE', 'I023638FXA9999XYZ\r\nHFDTE'), true],
  ['IGC of month 77', () => igc.replace('020426', '997726'), null],
  ['IGC with J and no K', () => igc.replace('HFDTE', 'J010812HDT\r\nHFDTE'), true],
  ['NMEA with wrong sums', () => nmea.replace(/\*../g, '*00'), false],
  ['NMEA without a fix', () => nmea.replace(/,A,/g, ',V,'), false],
  ['NMEA of other talkers', () => '$GPZDA,100000,02,04,2026,00,00*4A\r\n'.repeat(50), false],
  ['a hundred thousand equal rows', () => `${csv()}\n${`${ROWS[59]?.t ?? ''},39,-7,1000\n`.repeat(100_000)}`, true],
  [
    'bytes of a picture',
    () => textOfBytes(Uint8Array.from({ length: 4000 }, (_, i) => (i * 197 + (i >> 3)) % 256)),
    false,
  ],
  ['UTF-16 without a mark', () => textOfBytes(Uint8Array.from([...csv()].flatMap((c) => [c.charCodeAt(0), 0]))), true],
];
/** A run of the reader that takes longer than this is ended and fails: none hangs. */
const HANGS_MS = 10_000;

describe('a hundred odd files: read, or refused with the reason, and none hangs', () => {
  it('are a hundred, and more', () => expect(FILES.length).toBeGreaterThanOrEqual(100));
  it.each(FILES)(
    '%s',
    (_, text, reads) => {
      const answer = readTrace(text());
      if (reads !== null)
        expect(answer.ok ? 'read' : answer.code).toEqual(reads ? 'read' : expect.not.stringMatching(/^read$/));
      if (answer.ok) {
        const { tS, rows, channels } = answer.trace;
        expect(rows).toBe(tS.length);
        for (let i = 1; i < rows; i++) expect((tS[i] ?? 0) > (tS[i - 1] ?? 0)).toBe(true);
        for (const v of channels.lat ?? []) expect(Number.isNaN(v) || Math.abs(v) <= 90).toBe(true);
        return;
      }
      // A sentence that says what to do or what is missing, and the line where there is one.
      expect(unreadableWords(answer.why)).toMatch(/^[A-Z].{15,}\.$/);
      if (answer.line !== undefined) expect(answer.line).toBeGreaterThan(0);
    },
    HANGS_MS,
  );
  it('a header in words nobody knows: its values tell time and place, as a guess, and nothing else', () => {
    const row = (k: number) =>
      [(k / 5).toFixed(1), (39.3134 + k * 1.1e-5).toFixed(7), (-7.4165 - k * 2e-6).toFixed(7), (420 + k / 3).toFixed(1)]
        .join(';')
        .replaceAll('.', ',');
    const rows = Array.from({ length: 200 }, (_, k) => row(k));
    const answer = readTrace(['Aufzeichnung vom 3. Juni', 'zaehler;breite;laenge;hoehe', ...rows].join('\n'));
    if (!answer.ok) throw new Error(answer.code);
    expect(answer.trace.columns?.map((c) => [c.as, c.by, (c.confidence ?? 0) < 0.5])).toEqual([
      ['time:elapsed', 'values', true],
      ['lat', 'values', true],
      ['lon', 'values', true],
      [null, null, true],
    ]);
    expect(answer.trace.rateHz).toBeCloseTo(5, 6);
    expect(answer.trace.channels.lat?.[10]).toBeCloseTo(39.31351, 7);
    // Words over words, or over rows of another length, are no header.
    expect(readTrace('one;two;three\nfour;five;six\nseven;eight;nine\nten;eleven;twelve').ok).toBe(false);
    expect(readTrace(['one;two;three', ...rows].join('\n')).ok).toBe(false);
  });
  it('packed, of each kind: as it is unpacked', () => {
    for (const [kind, text] of Object.entries(KINDS)) {
      const found = fromZip(zipSync({ [`flight.${kind}`]: strToU8(text) }), 1e6);
      if (typeof found === 'string') throw new Error(`${kind}: ${found}`);
      expect(readTrace(textOfBytes(found)).ok, kind).toBe(true);
      expect(fromZip(zipSync({ [`flight.${kind}.gz`]: gzipSync(strToU8(text)) }), 1e6), kind).toBeInstanceOf(
        Uint8Array,
      );
    }
  });
});
