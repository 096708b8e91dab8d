import { zipSync, strToU8 } from 'fflate';
import { describe, expect, it } from 'vitest';
import { fromZip, readTrace, textOfBytes, type Trace } from '@/core/trace';

const T0 = Date.parse('2026-11-24T10:00:00.000Z');
const at = (i: number) => ({ ms: T0 + i * 1000, lat: 41.5 + i * 3e-4, lon: -6.5 - i * 1e-4, altFt: 1300 + i * 10 });
const rows = (of: (i: number) => string, n = 40) => Array.from({ length: n }, (_, i) => of(i)).join('\n');
const read = (text: string): Trace => {
  const r = readTrace(text);
  if (!r.ok) throw new Error(r.why.code);
  return r.trace;
};
/** What a table with one column of that name beside time and place takes it for. */
const taken = (header: string, value = '1'): string => {
  const t = read(
    `time,lat,lon,${header}\n${rows((i) => `${new Date(at(i).ms).toISOString()},${at(i).lat},${at(i).lon},${value}`)}`,
  );
  const c = t.columns?.[3];
  return `${c?.as} ${c?.unit ?? ''}`.trim();
};

describe('columns by the words of their header', () => {
  it.each([
    ['GPS Ground Speed [km/h]', 'gs km/h'],
    ['gps_gnd_spd_kmh', 'gs km/h'],
    ['gpsGroundSpeedKmh', 'gs km/h'],
    ['SPEED.OVER.GROUND.KPH', 'gs km/h'],
    ['Course Over Ground (deg)', 'track deg'],
    ['indicated air speed mph', 'ias mph'],
    ['true airspeed (kt)', 'tas kt'],
    ['Rate of Climb (m/s)', 'vs m/s'],
    ['vert_accel_m/s2', 'nz m/s2'],
    ['LatAc', 'null'],
    ['Heading Bug', 'null'],
    ['Selected Altitude (ft)', 'null'],
    ['altPress_m', 'altPressure m'],
    ['Altitude WGS84 (m)', 'altEllipsoid m'],
    ['geoAltFt', 'altGps ft'],
    ['Eng 2 RPM', 'rpm'],
    ['L CHT 3 (deg C)', 'cht c'],
    ['Wind Speed (kt)', 'null'],
    ['true_heading', 'headingTrue deg'],
  ])('%s', (header, as) => expect(taken(header)).toBe(as));
  it('two engines beside each other are two', () => {
    const t = read(`t (s),lat,lon,left rpm,right rpm\n${rows((i) => `${i},${at(i).lat},${at(i).lon},2300,900`)}`);
    expect([t.channels.rpm?.[3], t.channels.rpm2?.[3]]).toEqual([2300, 900]);
  });
});

describe('columns by what stands in them', () => {
  it.each([
    ['Zeit (utc iso)', (i: number) => new Date(at(i).ms).toISOString()],
    ['utc_time_unix_ms', (i: number) => String(at(i).ms)],
    ['stamp', (i: number) => String(at(i).ms * 1000)],
    ['Zulu Time', (i: number) => new Date(at(i).ms).toISOString().slice(11, 19)],
    ['UTC', (i: number) => new Date(at(i).ms).toISOString().slice(11, 19).replaceAll(':', '')],
    ['session_ms', (i: number) => String(i * 1000)],
    ['irgendwas', (i: number) => new Date(at(i).ms).toISOString().replace('T', ' ')],
  ])('a time called %s', (header, of) => {
    const t = read(`${header};lat;lon\n${rows((i) => `${of(i)};${at(i).lat};${at(i).lon}`)}`);
    expect([t.tS[1], t.tS[39], t.rateHz]).toEqual([1, 39, 1]);
  });
  it('degrees and minutes, hemispheres in words, ten-millionths; nothing named at all', () => {
    const min = (x: number, w: number) =>
      `${String(Math.floor(x)).padStart(w, '0')}${((x % 1) * 60).toFixed(5).padStart(8, '0')}`;
    for (const [lat, lon] of [
      [(i: number) => min(at(i).lat, 2), (i: number) => `-${min(-at(i).lon, 3)}`],
      [(i: number) => `${at(i).lat}N`, (i: number) => `${-at(i).lon}W`],
      [(i: number) => String(Math.round(at(i).lat * 1e7)), (i: number) => String(Math.round(at(i).lon * 1e7))],
    ] as const) {
      const t = read(`elapsed,latitude,longitude\n${rows((i) => `${i},${lat(i)},${lon(i)}`)}`);
      expect(t.channels.lat?.[20]).toBeCloseTo(at(20).lat, 5);
      expect(t.channels.lon?.[20]).toBeCloseTo(at(20).lon, 5);
    }
    const bare = read(
      rows((i) => `${new Date(at(i).ms).toISOString()},${at(i).lat.toFixed(6)},${at(i).lon.toFixed(6)},99`),
    );
    expect(bare.channels.lat?.[5]).toBeCloseTo(at(5).lat, 6);
    expect(bare.columns?.map((c) => c.by)).toEqual(['values', 'values', 'values', null]);
    expect(Math.max(...(bare.columns ?? []).map((c) => c.confidence ?? 0))).toBeLessThan(0.8);
  });
  it('a speed without a unit is in the one its positions show; a guess says that it is one', () => {
    const way = Math.hypot(3e-4 * 111_195, 1e-4 * 111_195 * Math.cos((41.5 * Math.PI) / 180));
    const t = read(
      `elapsed,lat,lon,speed,alt\n${rows((i) => `${i},${at(i).lat.toFixed(8)},${at(i).lon.toFixed(8)},${(way * 3.6).toFixed(2)},400`, 200)}`,
    );
    expect(t.channels.gs?.[50]).toBeCloseTo(way / 0.514444, 0);
    expect(t.warnings.map((w) => w.code)).toEqual(expect.arrayContaining(['unit-shown', 'unit-assumed']));
  });
});

describe('other formats', () => {
  const sum = (x: string) => {
    let c = 0;
    for (const ch of x) c ^= ch.charCodeAt(0);
    return `$${x}*${c.toString(16).toUpperCase().padStart(2, '0')}`;
  };
  const gga = (s: number) =>
    sum(`GPGGA,1000${String(s).padStart(2, '0')}.00,4130.0000,N,00630.0000,W,1,08,1.0,400.0,M,50.0,M,,`);
  const rmc = (s: number) =>
    sum(`GPRMC,1000${String(s).padStart(2, '0')}.00,A,4130.0000,N,00630.0000,W,65.0,045.0,241126,,,A`);
  it('NMEA: one fix of both sentences; a wrong check sum is left out and counted', () => {
    const broken = gga(2).replace('400.0', '900.0');
    const t = read([gga(0), rmc(0), gga(1), rmc(1), broken, rmc(2)].join('\r\n'));
    expect(t).toMatchObject({ format: 'nmea', rows: 3, startUtcMs: T0 });
    expect([t.channels.lat?.[0], t.channels.lon?.[0], t.channels.gs?.[0], t.channels.track?.[0]]).toEqual([
      41.5, -6.5, 65, 45,
    ]);
    expect(t.channels.altGps?.[1]).toBeCloseTo(400 / 0.3048, 6);
    expect(t.channels.altGps?.[2]).toBeNaN();
    expect(t.warnings).toContainEqual({ code: 'record-broken', params: undefined, count: 1 });
  });
  const when = (i: number) => new Date(T0 + i * 1000).toISOString();
  it('KML: a track of times and places, timed points; a line without times is refused with the reason', () => {
    const head = '<?xml version="1.0"?><kml xmlns:gx="urn:x"><Document>';
    const track = read(
      `${head}<Placemark><gx:Track>${[0, 1, 2].map((i) => `<when>${when(i)}</when>`).join('')}${[0, 1, 2].map((i) => `<gx:coord>-6.5 ${41.5 + i / 1000} 400</gx:coord>`).join('')}</gx:Track></Placemark></Document></kml>`,
    );
    const points = read(
      `${head}${[0, 1, 2].map((i) => `<Placemark><TimeStamp><when>${when(i)}</when></TimeStamp><Point><coordinates>-6.5,${41.5 + i / 1000},400</coordinates></Point></Placemark>`).join('')}</Document></kml>`,
    );
    for (const t of [track, points]) {
      expect(t).toMatchObject({ format: 'kml', rows: 3, startUtcMs: T0 });
      expect(t.channels.lat?.[2]).toBeCloseTo(41.502, 9);
      expect(t.channels.altMsl?.[0]).toBeCloseTo(400 / 0.3048, 6);
    }
    const line = readTrace(
      `${head}<Placemark><LineString><coordinates>1,2,3 1,2,3</coordinates></LineString></Placemark></Document></kml>`,
    );
    expect(line).toMatchObject({ ok: false, code: 'no-time', why: { code: 'kml-no-times' } });
  });
  it('an archive gives its recording; one that is broken, empty or too long says so', () => {
    const zip = zipSync({ 'readme.txt': strToU8('hello'), 'flight/log.csv': strToU8('time,lat,lon\n') });
    expect(new TextDecoder().decode(fromZip(zip, 1e6) as Uint8Array)).toBe('time,lat,lon\n');
    expect(fromZip(zip.slice(0, 40), 1e6)).toBe('zip-broken');
    expect(fromZip(zipSync({ 'a.png': strToU8('x') }), 1e6)).toBe('zip-empty');
    expect(fromZip(zip, 5)).toBe('zip-too-long');
  });
  it('bytes of any order', () => {
    const le = new Uint8Array([...'time,lat'].flatMap((c) => [c.charCodeAt(0), 0]));
    const be = new Uint8Array([...'time,lat'].flatMap((c) => [0, c.charCodeAt(0)]));
    expect([textOfBytes(le), textOfBytes(be), textOfBytes(new Uint8Array([0xef, 0xbb, 0xbf, 0x61]))]).toEqual([
      'time,lat',
      'time,lat',
      'a',
    ]);
    expect(textOfBytes(new Uint8Array([0x28, 0xb0, 0x29]))).toBe('(\u00b0)');
  });
});
