import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Trace, findHeader, readTrace, unreadableWords } from '@/core/trace';

const T0 = Date.parse('2026-11-24T09:59:58.000Z');
/** A short honest track: north-east at 65 kt, 390 to 410 m. */
const track = Array.from({ length: 40 }, (_, i) => ({
  ms: T0 + i * 500,
  lat: 41.5 + i * 0.0001,
  lon: -6.5 + i * 0.0002,
  altFt: 1300 + i * 10,
  iasKt: 65 + (i % 5),
  nz: 1 + (i % 3) * 0.1,
}));
const iso = (ms: number) => new Date(ms).toISOString();
const read = (text: string): Trace => {
  const r = readTrace(text);
  if (!r.ok) throw new Error(`${r.code}: ${r.why.code}`);
  return r.trace;
};
const refused = (text: string) => {
  const r = readTrace(text);
  return r.ok ? 'read' : r.code;
};
const codes = (t: Trace) => t.warnings.map((w) => w.code);

const plain = [
  'Time,Latitude,Longitude,Alt (ft),IAS (kt),NormAc',
  ...track.map((p) => `${iso(p.ms)},${p.lat.toFixed(7)},${p.lon.toFixed(7)},${p.altFt},${p.iasKt},${p.nz.toFixed(2)}`),
].join('\n');

describe('tables', () => {
  it('reads what is there, in its own units, from the first good sample', () => {
    const t = read(plain);
    expect(t).toMatchObject({ format: 'csv', rows: 40, rateHz: 2, startUtcMs: T0, gaps: [] });
    expect(t.tS[1]).toBeCloseTo(0.5, 9);
    expect(t.channels.lat?.[10]).toBeCloseTo(41.501, 7);
    expect(t.channels.altMsl?.[3]).toBe(1330);
    expect(t.channels.ias?.[4]).toBe(69);
    expect(t.channels.nz?.[2]).toBeCloseTo(1.2, 9);
    expect(codes(t)).toEqual([]);
  });
  it('semicolons, decimal commas, metres, km/h, a comment block and a units row', () => {
    const text = [
      '# recorder 3',
      '# flight 12',
      'date;utc time;lat;lon;baro alt;ias;gear',
      'yyyy-mm-dd;hh:mm:ss;deg;deg;m;km/h;-',
      ...track.map(
        (p) =>
          `${iso(p.ms).slice(0, 10)};${iso(p.ms).slice(11, 21)};${String(p.lat.toFixed(6)).replace('.', ',')};${String(p.lon.toFixed(6)).replace('.', ',')};${(p.altFt * 0.3048).toFixed(2).replace('.', ',')};${(p.iasKt * 1.852).toFixed(1).replace('.', ',')};down`,
      ),
    ].join('\r\n');
    const t = read(text);
    expect(t.rows).toBe(40);
    expect(t.channels.altMsl?.[10]).toBeCloseTo(1400, 1);
    expect(t.channels.ias?.[4]).toBeCloseTo(69, 1);
    expect(t.channels.gear?.[0]).toBe(1);
    expect(t.channels.lat?.[5]).toBeCloseTo(41.5005, 6);
    expect(t.startUtcMs).toBe(T0);
  });
  it('a units row above the header, in brackets or in the name', () => {
    expect(
      read(`s,deg,deg,m,m/s\nelapsed,lat,lon,alt,gs\n0,41.5,-6.5,400,33\n1,41.5001,-6.5,401,34\n`).channels.gs?.[0],
    ).toBeCloseTo(33 / 0.514444, 6);
    expect(
      read(`elapsed_s,lat_deg,lon_deg,gps_alt_m,vs_fpm\n0,41.5,-6.5,400,-300\n1,41.5,-6.5001,401,-200`).channels,
    ).toMatchObject({ altGps: expect.anything() as Float64Array, vs: expect.anything() as Float64Array });
  });
  it('local time with its offset column, on both sides of midnight', () => {
    const t = read(
      [
        'Lcl Date,Lcl Time,UTCOfst,Latitude,Longitude',
        '2026-11-24,23:59:59,+01:00,41.5,-6.5',
        '2026-11-25,00:00:00,+01:00,41.5001,-6.5',
        '2026-11-25,00:00:01,+01:00,41.5002,-6.5',
      ].join('\n'),
    );
    expect(t.startUtcMs).toBe(Date.parse('2026-11-24T22:59:59Z'));
    expect([...t.tS]).toEqual([0, 1, 2]);
  });
  it('a time of day that passes midnight runs on', () => {
    const t = read('utc,lat,lon\n23:59:58,41.5,-6.5\n23:59:59.5,41.5,-6.5001\n00:00:01,41.5,-6.5002\n');
    expect([...t.tS]).toEqual([0, 1.5, 3]);
    expect(t.startUtcMs).toBeNull();
    expect(codes(t)).toContain('midnight');
  });
  it.each([
    ['1795000000', 1_795_000_000_000],
    ['1795000000000', 1_795_000_000_000],
  ])('seconds or milliseconds since 1970: %s', (text, ms) => {
    expect(
      read(`timestamp,lat,lon\n${text},41.5,-6.5\n${Number(text) + (text.length > 11 ? 1000 : 1)},41.5,-6.5001`),
    ).toMatchObject({ startUtcMs: ms, rateHz: 1 });
  });
  it('repeated rows, time going back, gaps and impossible positions are left out and counted', () => {
    const t = read(
      'elapsed,lat,lon\n0,0,0\n1,41.5,-6.5\n1,41.5,-6.5\n2,41.5001,-6.5\n1.5,41.5,-6.5\n3,95,-6.5\n10,41.5002,-6.5\nx,41.5,-6.5\n',
    );
    expect([...t.tS]).toEqual([0, 1, 2, 9]);
    expect(t.gaps).toEqual([{ fromS: 2, toS: 9 }]);
    expect(Object.fromEntries(t.warnings.map((w) => [w.code, w.count]))).toEqual({
      'position-impossible': 2,
      'time-missing': 1,
      'time-repeated': 1,
      'time-back': 1,
      gap: 1,
    });
    expect(t.channels.lat?.[2]).toBeNaN();
  });
  it('one wild time among good ones is left out, first row or not, and spoils nothing', () => {
    for (const wild of ['-18013791340372.793', '1e300', '999999999'])
      for (const first of [true, false]) {
        const good = ['0,41.5,-6.5', '0.001,41.5,-6.5', '1,41.5001,-6.5', '2,41.5002,-6.5'];
        const bad = `${wild},41.5,-6.5`;
        const t = read(['elapsed,lat,lon', ...(first ? [bad, ...good] : [...good, bad])].join('\n'));
        expect([...t.tS]).toEqual([0, 0.001, 1, 2]);
        expect(codes(t)).toContain('time-impossible');
      }
  });
  it('the hottest of several cylinders; words quoted with the separator inside', () => {
    const t = read(
      'time,lat,lon,CHT1 (F),CHT2 (F),"Note, long"\n2026-11-24T10:00:00Z,41.5,-6.5,300,212,"a, b"\n2026-11-24T10:00:01Z,41.5,-6.5,,400,"c"',
    );
    expect([...(t.channels.cht ?? [])].map((x) => Math.round(x))).toEqual([149, 204]);
    expect(codes(t)).toContain('columns-unknown');
  });
  it('says what it assumed', () => {
    const t = read(
      'time,lat,lon,alt,ias,hdg\n2026-11-24 10:00:00,41.5,-6.5,1300,65,220\n2026-11-24 10:00:01,41.5,-6.5,1301,65,221',
    );
    expect(codes(t).sort()).toEqual(['heading-assumed-magnetic', 'unit-assumed', 'unit-assumed', 'zone-not-said']);
  });
  it('both hemispheres and the 180° meridian as they are', () => {
    const t = read('elapsed,lat,lon\n0,-36.8,179.9999\n1,-36.8,-179.9999');
    expect([...(t.channels.lon ?? [])]).toEqual([179.9999, -179.9999]);
    expect(t.channels.lat?.[0]).toBe(-36.8);
  });
  it('columns it does not know are asked for, and what is said is believed', () => {
    const text = 'when,breite,laenge,fahrt\n10:00:00,41.5,-6.5,120\n10:00:01,41.5,-6.5001,121';
    const asked = readTrace(`time,breite,laenge,speed\n10:00:00,41.5,-6.5,120\n`);
    expect(asked).toMatchObject({ ok: false, code: 'columns', headers: ['time', 'breite', 'laenge', 'speed'] });
    const told = readTrace(text, {
      when: { channel: 'time:clock', unit: null },
      breite: { channel: 'lat', unit: null },
      laenge: { channel: 'lon', unit: null },
      fahrt: { channel: 'gs', unit: 'km/h' },
    });
    expect(told.ok && told.trace.channels.gs?.[0]).toBeCloseTo(120 / 1.852, 6);
  });
  it.each([
    ['', 'empty'],
    ['hello', 'not-a-trace'],
    ['a,b,c\n1,2,3', 'not-a-trace'],
    ['time,lat,alt\n10:00:00,41,1300', 'columns'],
    ['lat,lon,alt\n41,-6,1300', 'columns'],
    ['time,lat,lon\n', 'empty'],
    ['time,lat,lon\n10:00:00,,\n10:00:01,,', 'empty'],
  ])('%j is refused as %s', (text, code) => expect(refused(text)).toBe(code));
  it('finds the header under a preamble', () =>
    expect(findHeader(`logger v2\nserial,12\n\n${plain}`)?.headers[0]).toBe('Time'));
});

const gpxOf = (extension: (p: (typeof track)[number]) => string) =>
  `<?xml version="1.0"?><gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1"><trk><name>a</name><trkseg>${track.map((p) => `<trkpt lat="${p.lat.toFixed(7)}" lon="${p.lon.toFixed(7)}"><ele>${(p.altFt * 0.3048).toFixed(2)}</ele><time>${iso(p.ms)}</time>${extension(p)}</trkpt>`).join('')}</trkseg></trk></gpx>`;
describe('GPX', () => {
  it('with and without extensions gives the same track', () => {
    const bare = read(gpxOf(() => ''));
    const full = read(
      gpxOf(
        (p) =>
          `<extensions><x:TrackPointExtension><x:speed>${(p.iasKt * 0.514444).toFixed(3)}</x:speed><x:course>45</x:course></x:TrackPointExtension></extensions>`,
      ),
    );
    expect(bare).toMatchObject({ format: 'gpx', rows: 40, rateHz: 2, startUtcMs: T0 });
    expect([...full.tS]).toEqual([...bare.tS]);
    expect(full.channels.gs?.[4]).toBeCloseTo(69, 2);
    expect(full.channels.track?.[0]).toBe(45);
    expect(bare.channels.gs).toBeUndefined();
    expect(bare.channels.altMsl?.[10]).toBeCloseTo(1400, 1);
  });
  it('is refused when it declares entities, is broken or empty', () => {
    expect(refused('<?xml version="1.0"?><!DOCTYPE lolz [<!ENTITY a "b">]><gpx/>')).toBe('dangerous');
    expect(refused('<kml/>')).toBe('not-a-trace');
    expect(refused('<gpx><trk><trkseg></trkseg></trk></gpx>')).toBe('empty');
    expect(['not-a-trace', 'empty', 'no-position']).toContain(refused('<gpx><trk><trkseg><trkpt lat="41"'));
  });
});

const two = (x: number, n: number) => String(Math.abs(Math.trunc(x))).padStart(n, '0');
const degrees = (x: number, n: number) => {
  const d = Math.floor(Math.abs(x));
  return `${two(d, n)}${two(Math.round((Math.abs(x) - d) * 60_000), 5)}`;
};
const igcOf = (points: typeof track) =>
  [
    'AXXX001',
    'HFDTE241126',
    'I023638IAS3940TDS',
    ...points.map((p) => {
      const d = new Date(p.ms);
      return `B${two(d.getUTCHours(), 2)}${two(d.getUTCMinutes(), 2)}${two(d.getUTCSeconds(), 2)}${degrees(p.lat, 2)}N${degrees(p.lon, 3)}WA${two(p.altFt * 0.3048, 5)}${two(p.altFt * 0.3048 + 55, 5)}${two(p.iasKt * 1.852, 3)}${two(d.getUTCMilliseconds() / 10, 2)}`;
    }),
  ].join('\r\n');
describe('IGC', () => {
  it('reads fixes, both heights, named extensions and tenths', () => {
    const t = read(igcOf(track));
    expect(t).toMatchObject({ format: 'igc', rows: 40, rateHz: 2, startUtcMs: T0 });
    expect(t.channels.lat?.[10]).toBeCloseTo(41.501, 4);
    expect(t.channels.lon?.[10]).toBeCloseTo(-6.498, 4);
    expect((t.channels.altEllipsoid?.[0] ?? 0) - (t.channels.altPressure?.[0] ?? 0)).toBeCloseTo(55 / 0.3048, -1);
    expect(t.channels.ias?.[0]).toBeCloseTo(65, 0);
  });
  it('runs on past midnight, leaves broken fixes out, takes no height of a flat fix', () => {
    const t = read(
      'AXXX001\nHFDTE241126\nB2359594130000N00630000WA0040000455\nB0000004130010N00630000WV0040000455\nB00000141x0010N00630000WA0040000455\nB0000024130020N00630000WA0040000455',
    );
    expect([...t.tS]).toEqual([0, 1, 3]);
    expect(t.channels.altEllipsoid?.[1]).toBeNaN();
    expect(codes(t)).toEqual(expect.arrayContaining(['midnight', 'record-broken']));
  });
});

describe('damaged files', () => {
  const kml = `<kml xmlns:gx="urn:x"><Document><Placemark><gx:Track>${track.map((p) => `<when>${iso(p.ms)}</when>`).join('')}${track.map((p) => `<gx:coord>${p.lon} ${p.lat} 400</gx:coord>`).join('')}</gx:Track></Placemark></Document></kml>`;
  // Without check sums: what is damaged is read as far as it goes.
  const nmea = track
    .map((_, i) => `$GPRMC,1000${String(i).padStart(2, '0')}.00,A,4130.00${i},N,00630.00${i},W,65.0,045.0,241126,,,A`)
    .join('\r\n');
  const sound = [plain, gpxOf(() => ''), igcOf(track), kml, nmea];
  it('each of them is read whole', () => {
    expect(sound.map((text) => read(text).format)).toEqual(['csv', 'gpx', 'igc', 'kml', 'nmea']);
  });
  const check = (text: string) => {
    const r = readTrace(text);
    if (!r.ok) {
      expect(unreadableWords(r.why).length).toBeGreaterThan(10);
      return;
    }
    // What is read is a trace: times rise, columns are as long as they, positions are on the earth.
    const { tS, channels } = r.trace;
    expect(tS.every((t, i) => i === 0 || t > (tS[i - 1] ?? 0))).toBe(true);
    expect(Object.values(channels).every((c) => c.length === tS.length)).toBe(true);
    expect((channels.lat ?? new Float64Array()).every((a) => Number.isNaN(a) || Math.abs(a) <= 90)).toBe(true);
  };
  it('cut, spliced and overwritten anywhere: a trace or a reason, never a crash', () => {
    const damage = fc.record({
      which: fc.constantFrom(0, 1, 2, 3, 4),
      cutFrom: fc.nat(4000),
      cut: fc.nat(300),
      put: fc.string({ maxLength: 12, unit: 'binary' }),
    });
    fc.assert(
      fc.property(fc.array(damage, { minLength: 1, maxLength: 4 }), (list) => {
        let text = sound[list[0]?.which ?? 0] ?? '';
        for (const d of list) text = text.slice(0, d.cutFrom) + d.put + text.slice(d.cutFrom + d.cut);
        check(text);
      }),
      { numRuns: 2500 },
    );
  });
  it('rubbish of any kind', () => {
    fc.assert(fc.property(fc.string({ maxLength: 400, unit: 'binary' }), check), { numRuns: 500 });
    fc.assert(
      fc.property(
        fc.array(
          fc.array(
            fc.oneof(
              fc.constantFrom('time', 'lat', 'lon', '', '"', ';', '1e400', 'NaN', '-0', '99:99:99', '2026-13-40'),
              fc.double().map(String),
            ),
            { maxLength: 6 },
          ),
          { maxLength: 12 },
        ),
        (rows) => check(`time,lat,lon,alt\n${rows.map((r) => r.join(',')).join('\n')}`),
      ),
      { numRuns: 500 },
    );
  });
});
