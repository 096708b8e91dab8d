/**
 * How other people's devices write files: names of columns put together from words, joiners and units at random, tables
 * with and without comments, units rows, quotes, zones; and five formats that are no table.
 */
import { FT } from './aeroplane';
import { drawing, type Flight } from './flight';
import type { Device, Sensed } from './sensors';

export interface Written {
  format: 'csv' | 'gpx' | 'igc' | 'kml' | 'nmea';
  text: string;
  /** How it is laid out, for the list. */
  shape: string;
}
const two = (n: number, w = 2) => String(Math.trunc(n)).padStart(w, '0');
const iso = (ms: number) => new Date(ms).toISOString();

type Say = { words: string[]; units: [string, (x: number) => number, number][]; of: (r: Sensed) => number };
const same = (x: number) => x;
const FEET: Say['units'] = [
  ['ft', same, 1],
  ['m', (x) => x * FT, 2],
  ['feet', same, 1],
  ['meters', (x) => x * FT, 2],
];
const KNOTS: Say['units'] = [
  ['kt', same, 1],
  ['kts', same, 1],
  ['mph', (x) => x / 0.868976, 1],
  ['km/h', (x) => x * 1.852, 1],
  ['m/s', (x) => x * 0.514444, 2],
  ['kph', (x) => x * 1.852, 1],
  ['knots', same, 1],
];
const DEGREES: Say['units'] = [
  ['deg', same, 1],
  ['\u00b0', same, 1],
  ['degrees', same, 1],
  ['', same, 1],
];

function columnsOf(f: Flight, dev: Device, d: ReturnType<typeof drawing>): Say[] {
  const { has } = dev;
  const variation = f.context.aerodrome.magneticVariationDeg;
  const magnetic = d.chance(0.6);
  const out: Say[] = [
    {
      words: d.of([
        ['lat'],
        ['latitude'],
        ['gps', 'lat'],
        ['gps', 'latitude'],
        ['position', 'lat'],
        ['pos', 'latitude'],
        ['latitude', 'wgs84'],
        ['y', 'lat'],
      ]),
      units: d.of([[['deg', same, 8]], [['', same, 8]], [['\u00b0', same, 8]], [['dd', same, 8]]]),
      of: (r) => r.lat,
    },
    {
      words: d.of([
        ['lon'],
        ['longitude'],
        ['gps', 'lon'],
        ['lng'],
        ['long'],
        ['gps', 'longitude'],
        ['pos', 'longitude'],
        ['x', 'lon'],
      ]),
      units: d.of([[['deg', same, 8]], [['', same, 8]], [['\u00b0', same, 8]]]),
      of: (r) => r.lon,
    },
  ];
  if (has.alt === 'gps')
    out.push({
      words: d.of([
        ['gps', 'alt'],
        ['gps', 'altitude'],
        ['altitude', 'gps'],
        ['geo', 'alt'],
        ['gps', 'height'],
        ['altitude'],
        ['alt', 'msl'],
      ]),
      units: FEET,
      of: (r) => r.altFt,
    });
  else if (has.alt === 'baro')
    out.push({
      words: d.of([
        ['baro', 'alt'],
        ['altitude'],
        ['indicated', 'altitude'],
        ['alt', 'baro'],
        ['alt', 'ind'],
        ['altimeter'],
      ]),
      units: FEET,
      of: (r) => r.altFt,
    });
  else
    out.push({
      words: d.of([
        ['pressure', 'alt'],
        ['pressure', 'altitude'],
        ['alt', 'press'],
        ['alt', 'std'],
        ['qne', 'altitude'],
      ]),
      units: FEET,
      of: (r) => r.pressFt,
    });
  if (has.gs) {
    out.push({
      words: d.of([
        ['ground', 'speed'],
        ['gs'],
        ['gnd', 'spd'],
        ['speed', 'over', 'ground'],
        ['gps', 'speed'],
        ['groundspeed'],
        ['gps', 'ground', 'speed'],
      ]),
      units: KNOTS,
      of: (r) => r.gs,
    });
    out.push({
      words: d.of([
        ['track'],
        ['course'],
        ['cog'],
        ['gps', 'track'],
        ['trk'],
        ['course', 'over', 'ground'],
        ['true', 'track'],
        ['ground', 'track'],
      ]),
      units: DEGREES,
      of: (r) => r.track,
    });
  }
  if (has.ias)
    out.push({
      words: d.of([
        ['ias'],
        ['airspeed'],
        ['indicated', 'airspeed'],
        ['cas'],
        ['air', 'speed'],
        ['indicated', 'air', 'speed'],
        ['asi'],
      ]),
      units: KNOTS,
      of: (r) => r.ias,
    });
  if (has.heading)
    out.push({
      words: magnetic
        ? d.of([['heading', 'mag'], ['hdg'], ['mag', 'heading'], ['magnetic', 'heading'], ['heading']])
        : d.of([
            ['heading', 'true'],
            ['true', 'heading'],
            ['hdg', 'true'],
          ]),
      units: DEGREES,
      of: (r) => (r.heading - (magnetic ? variation : 0) + 720) % 360,
    });
  if (has.vs)
    out.push({
      words: d.of([
        ['vs'],
        ['vertical', 'speed'],
        ['vsi'],
        ['climb', 'rate'],
        ['vspd'],
        ['vert', 'speed'],
        ['rate', 'of', 'climb'],
      ]),
      units: [
        ['fpm', same, 0],
        ['ft/min', same, 0],
        ['m/s', (x) => x * 0.00508, 2],
      ],
      of: (r) => r.vs,
    });
  if (has.attitude) {
    out.push({
      words: d.of([['pitch'], ['pitch', 'angle'], ['pitch', 'attitude']]),
      units: DEGREES,
      of: (r) => r.pitch,
    });
    out.push({
      words: d.of([['roll'], ['bank'], ['bank', 'angle'], ['roll', 'angle'], ['roll', 'attitude']]),
      units: DEGREES,
      of: (r) => r.bank,
    });
  }
  if (has.g)
    out.push({
      words: d.of([
        ['nz'],
        ['norm', 'ac'],
        ['normal', 'acceleration'],
        ['vertical', 'g'],
        ['g', 'load'],
        ['load', 'factor'],
        ['accel', 'z'],
        ['vert', 'accel'],
      ]),
      units: [
        ['g', same, 3],
        ['m/s2', (x) => x * 9.80665, 2],
        ['m/s\u00b2', (x) => x * 9.80665, 2],
      ],
      of: (r) => r.g,
    });
  if (has.rpm) {
    const twin = f.machine.engines === 2;
    for (const e of twin ? ([0, 1] as const) : ([0] as const)) {
      const which = twin
        ? d.of([
            [`e${e + 1}`],
            ['engine', String(e + 1)],
            ['eng', String(e + 1)],
            [['left', 'right'][e] ?? ''],
            [['l', 'r'][e] ?? ''],
          ])
        : d.of([[], [], ['engine'], ['e1'], ['eng']]);
      out.push({
        words: [...which, 'rpm'],
        units: [
          ['rpm', same, 0],
          ['', same, 0],
          ['1/min', same, 0],
        ],
        of: (r) => r.rpm[e],
      });
      if (f.machine.governed)
        out.push({
          words: [...which, ...d.of([['map'], ['manifold', 'pressure'], ['man', 'press'], ['mp']])],
          units: [
            ['inhg', same, 1],
            ['hpa', (x) => x * 33.8639, 0],
            ['in hg', same, 1],
          ],
          of: (r) => r.map[e],
        });
    }
    for (const c of [1, 2, 3, 4])
      out.push({
        words: [d.of(['cht', 'cht', 'cyl']), ...(c > 0 ? [String(c)] : [])].map((w) => (w === 'cyl' ? 'cht' : w)),
        units: [
          ['c', same, 0],
          ['f', (x) => x * 1.8 + 32, 0],
          ['\u00b0c', same, 0],
          ['deg c', same, 0],
        ],
        of: (r) => r.cht - (c === 2 ? 0 : 4 + c),
      });
  }
  if (has.flap)
    out.push({
      words: d.of([['flaps'], ['flap', 'position'], ['flap', 'angle'], ['flap']]),
      units: DEGREES,
      of: (r) => Math.round(r.flap),
    });
  if (f.machine.gear === 'retractable' && dev.kind === 'panel')
    out.push({
      words: d.of([['gear'], ['gear', 'down'], ['landing', 'gear'], ['gear', 'position']]),
      units: [
        ['', same, 0],
        ['0/1', same, 0],
      ],
      of: (r) => r.gear,
    });
  return out;
}

function csv(f: Flight, dev: Device, rows: readonly Sensed[], seed: number): Written {
  const d = drawing(seed);
  const separator = d.of([',', ',', ',', ';', '\t']);
  const comma = separator === ';' && d.chance(0.7);
  const style = d.of(['spaced', 'snake', 'camel', 'upper', 'dotted', 'title'] as const);
  const unitIn = d.of(['round', 'square', 'joined', 'row', 'none'] as const);
  const join = (words: readonly string[], unit: string): string => {
    const all = unitIn === 'joined' && unit !== '' && !/[/\u00b0 ]/.test(unit) ? [...words, unit] : words;
    const cap = (w: string) => (w[0] ?? '').toUpperCase() + w.slice(1);
    const name =
      style === 'spaced'
        ? all.join(' ')
        : style === 'snake'
          ? all.join('_')
          : style === 'camel'
            ? all.map((w, i) => (i === 0 ? w : cap(w))).join('')
            : style === 'upper'
              ? all.join('_').toUpperCase()
              : style === 'dotted'
                ? all.join('.')
                : all.map(cap).join(' ');
    const after = unitIn === 'joined' && /[/\u00b0 ]/.test(unit) ? ` (${unit})` : '';
    return unit === ''
      ? name
      : unitIn === 'round'
        ? `${name} (${unit})`
        : unitIn === 'square'
          ? `${name} [${unit}]`
          : name + after;
  };
  const columns = columnsOf(f, dev, d).map((c) => {
    // Without a word for the unit it is the usual one.
    const unit = unitIn === 'none' ? c.units[0] : d.of(c.units);
    return { ...c, unit: unit as Say['units'][number] };
  });
  // The clock.
  type Clock = { heads: [string[], string][]; cells: (ms: number, s: number) => string[] };
  const offset = f.context.aerodrome.utcOffsetMin;
  const zone = `${offset < 0 ? '-' : '+'}${two(Math.abs(offset) / 60)}:${two(Math.abs(offset) % 60)}`;
  const clocks: Clock[] = [
    {
      heads: [
        [
          d.of([
            ['time', 'utc'],
            ['utc', 'time'],
            ['timestamp'],
            ['utc'],
            ['date', 'time'],
            ['datetime', 'utc'],
            ['gps', 'time', 'utc'],
            ['iso', 'time'],
            ['timestamp', 'utc'],
            ['zulu', 'time'],
          ]),
          '',
        ],
      ],
      cells: (ms) => [iso(ms)],
    },
    {
      heads: [[d.of([['timestamp'], ['time'], ['date', 'time'], ['recorded', 'at'], ['utc', 'timestamp']]), '']],
      cells: (ms) => [iso(ms).replace('T', ' ').replace('Z', '')],
    },
    {
      heads: [
        [
          d.of([
            ['elapsed'],
            ['time'],
            ['t'],
            ['seconds'],
            ['elapsed', 'time'],
            ['session', 'time'],
            ['rel', 'time'],
            ['time', 'since', 'start'],
          ]),
          's',
        ],
      ],
      cells: (_, s) => [s.toFixed(3)],
    },
    {
      heads: [[d.of([['epoch'], ['unix', 'time'], ['timestamp'], ['unix', 'timestamp']]), d.of(['ms', ''])]],
      cells: (ms) => [String(Math.round(ms))],
    },
    { heads: [[d.of([['unix'], ['epoch', 'time'], ['posix', 'time']]), 's']], cells: (ms) => [(ms / 1000).toFixed(3)] },
    {
      heads: [
        [['date'], ''],
        [d.of([['time'], ['utc', 'time'], ['time', 'utc']]), ''],
      ],
      cells: (ms) => [iso(ms).slice(0, 10), iso(ms).slice(11, 23)],
    },
    {
      heads: [
        [
          d.of([
            ['local', 'date'],
            ['lcl', 'date'],
          ]),
          '',
        ],
        [
          d.of([
            ['local', 'time'],
            ['lcl', 'time'],
          ]),
          '',
        ],
        [d.of([['utc', 'offset'], ['utcofst'], ['tz', 'offset']]), ''],
      ],
      cells: (ms) => {
        const l = iso(ms + offset * 60_000);
        return [l.slice(0, 10), l.slice(11, 23), zone];
      },
    },
    {
      heads: [[d.of([['utc'], ['time', 'of', 'day'], ['gps', 'time'], ['clock'], ['time']]), '']],
      cells: (ms) => [iso(ms).slice(11, 22)],
    },
    {
      heads: [
        [d.of([['utc', 'date'], ['date']]), ''],
        [
          d.of([
            ['utc', 'time'],
            ['time', 'utc'],
          ]),
          '',
        ],
      ],
      cells: (ms) => [
        iso(ms).slice(8, 10) + '/' + iso(ms).slice(5, 7) + '/' + iso(ms).slice(0, 4),
        iso(ms).slice(11, 23),
      ],
    },
  ];
  const clock = d.of(clocks);
  const timeLast = d.chance(0.1);
  const cell = (x: number, digits: number) => {
    const t = x.toFixed(digits);
    return comma ? t.replace('.', ',') : t;
  };
  const heads = clock.heads.map(([w, u]) => (u === '' ? join(w, '') : join(w, u)));
  const names = columns.map((c) => join(c.words, c.unit[0]));
  const head = timeLast ? [...names, ...heads] : [...heads, ...names];
  const units =
    unitIn === 'row'
      ? timeLast
        ? [...columns.map((c) => c.unit[0]), ...clock.heads.map(([, u]) => u)]
        : [...clock.heads.map(([, u]) => u), ...columns.map((c) => c.unit[0])]
      : null;
  const quoted = d.chance(0.15);
  const q = (x: string) => (quoted ? `"${x}"` : x);
  const lines: string[] = [];
  for (let k = 0; k < d.of([0, 0, 0, 1, 3, 6]); k++)
    lines.push(
      d.of([
        `# logged by an invented device, part ${k}`,
        `#${separator}session 17`,
        'Flight log',
        `Aircraft${separator}ZQ-AAA`,
      ]),
    );
  lines.push(head.map(q).join(separator));
  if (units) lines.push(units.join(separator));
  const t0 = rows[0]?.t ?? 0;
  const silent = d.chance(0.1);
  for (const r of rows) {
    const at = clock.cells(Math.round(f.startMs + r.t * 1000), r.t - t0 + 0.001);
    const clockCells = at.map((x) => (comma && /^\d+\.\d+$/.test(x) ? x.replace('.', ',') : x));
    const values = columns.map((c) => (silent && d.chance(0.003) ? '' : cell(c.unit[1](c.of(r)), c.unit[2])));
    lines.push((timeLast ? [...values, ...clockCells] : [...clockCells, ...values]).map(q).join(separator));
  }
  const bom = d.chance(0.2) ? '\ufeff' : '';
  return {
    format: 'csv',
    text: bom + lines.join(d.of(['\n', '\r\n'])),
    shape: head.join(separator === '\t' ? '|' : separator).slice(0, 300),
  };
}

const gpx = (f: Flight, dev: Device, rows: readonly Sensed[], seed: number): Written => {
  const d = drawing(seed);
  const old = d.chance(0.4);
  const prefix = d.of(['', 'x:', 'ext:']);
  const inside = (r: Sensed) =>
    !dev.has.gs
      ? ''
      : old
        ? `<course>${r.track.toFixed(1)}</course><speed>${(r.gs * 0.514444).toFixed(2)}</speed>`
        : `<extensions><${prefix}TrackPointExtension><${prefix}speed>${(r.gs * 0.514444).toFixed(2)}</${prefix}speed><${prefix}course>${r.track.toFixed(1)}</${prefix}course></${prefix}TrackPointExtension></extensions>`;
  const points = rows.map(
    (r) =>
      `<trkpt lat="${r.lat}" lon="${r.lon}"><ele>${(r.altFt * FT).toFixed(1)}</ele><time>${iso(Math.round(f.startMs + r.t * 1000))}</time>${inside(r)}</trkpt>`,
  );
  const half = Math.floor(points.length / 2);
  return {
    format: 'gpx',
    shape: `gpx ${old ? '1.0' : '1.1'} ${prefix}`,
    text: `<?xml version="1.0"?><gpx version="${old ? '1.0' : '1.1'}" creator="invented" xmlns="http://www.topografix.com/GPX/1/${old ? 0 : 1}"${prefix ? ` xmlns:${prefix.slice(0, -1)}="urn:invented"` : ''}><trk><name>a &amp; b</name><trkseg>${points.slice(0, half).join('\n')}</trkseg><trkseg>${points.slice(half).join('\n')}</trkseg></trk></gpx>`,
  };
};
const igc = (f: Flight, dev: Device, rows: readonly Sensed[], seed: number): Written => {
  const d = drawing(seed);
  const j = new Date(f.startMs);
  const fine = dev.rateHz > 1;
  const withGs = dev.has.gs;
  const fields: string[] = [];
  let at = 36;
  const place = (width: number, code: string) => {
    fields.push(two(at) + two(at + width - 1) + code);
    at += width;
  };
  place(3, 'FXA');
  if (withGs) place(3, 'GSP');
  if (withGs) place(3, 'TRT');
  if (fine) place(3, 'TDS');
  // Third decimals of the minute are two metres: some recorders add more.
  place(2, 'LAD');
  place(2, 'LOD');
  const signed = (x: number) => (x < 0 ? `-${two(Math.round(-x), 4)}` : two(Math.round(x), 5));
  const more = (x: number) => two(Math.floor((Math.abs(x) * 60_000 - Math.floor(Math.abs(x) * 60_000)) * 100));
  const floorMin = (x: number, w: number) => {
    const k = Math.floor(Math.abs(x) * 60_000);
    return two(Math.floor(k / 60_000), w) + two(k % 60_000, 5);
  };
  const lines = rows.map((r) => {
    const t = new Date(Math.round(f.startMs + r.t * 1000));
    const m = Math.max(0, Math.round(r.altFt * FT));
    return `B${two(t.getUTCHours())}${two(t.getUTCMinutes())}${two(t.getUTCSeconds())}${floorMin(r.lat, 2)}${r.lat < 0 ? 'S' : 'N'}${floorMin(r.lon, 3)}${r.lon < 0 ? 'W' : 'E'}A${signed(r.pressFt * FT)}${two(m + 45, 5)}${two(4, 3)}${withGs ? two(Math.round(r.gs * 1.852), 3) + two(Math.round(r.track) % 360, 3) : ''}${fine ? two(t.getUTCMilliseconds(), 3) : ''}${more(r.lat)}${more(r.lon)}`;
  });
  return {
    format: 'igc',
    shape: 'igc',
    text: [
      'AXYZ123',
      d.chance(0.5)
        ? `HFDTE${two(j.getUTCDate())}${two(j.getUTCMonth() + 1)}${two(j.getUTCFullYear() % 100)}`
        : `HFDTEDATE:${two(j.getUTCDate())}${two(j.getUTCMonth() + 1)}${two(j.getUTCFullYear() % 100)},01`,
      'HFFXA050',
      `I${two(fields.length)}${fields.join('')}`,
      'LXYZ a comment',
      ...lines,
      'GABCDEF',
    ].join('\r\n'),
  };
};
const kml = (f: Flight, _dev: Device, rows: readonly Sensed[], seed: number): Written => {
  const d = drawing(seed);
  const when = (r: Sensed) => iso(Math.round(f.startMs + r.t * 1000));
  const m = (r: Sensed) => (r.altFt * FT).toFixed(1);
  const body = d.chance(0.6)
    ? `<Placemark><gx:Track>${rows.map((r) => `<when>${when(r)}</when>`).join('')}${rows.map((r) => `<gx:coord>${r.lon} ${r.lat} ${m(r)}</gx:coord>`).join('\n')}</gx:Track></Placemark>`
    : rows
        .map(
          (r) =>
            `<Placemark><TimeStamp><when>${when(r)}</when></TimeStamp><Point><coordinates>${r.lon},${r.lat},${m(r)}</coordinates></Point></Placemark>`,
        )
        .join('\n');
  return {
    format: 'kml',
    shape: 'kml',
    text: `<?xml version="1.0"?><kml xmlns="http://www.opengis.net/kml/2.2" xmlns:gx="urn:kml-extension"><Document>${body}</Document></kml>`,
  };
};
const nmea = (f: Flight, _dev: Device, rows: readonly Sensed[], seed: number): Written => {
  const d = drawing(seed);
  const talker = d.of(['GP', 'GN']);
  const sum = (x: string) => {
    let c = 0;
    for (const ch of x) c ^= ch.charCodeAt(0);
    return `$${x}*${c.toString(16).toUpperCase().padStart(2, '0')}`;
  };
  const min = (x: number, w: number) =>
    `${two(Math.floor(Math.abs(x)), w)}${((Math.abs(x) % 1) * 60).toFixed(5).padStart(8, '0')}`;
  const lines = rows.flatMap((r) => {
    const t = new Date(Math.round(f.startMs + r.t * 1000));
    const hms = `${two(t.getUTCHours())}${two(t.getUTCMinutes())}${two(t.getUTCSeconds())}.${two(Math.floor(t.getUTCMilliseconds() / 10))}`;
    const place = `${min(r.lat, 2)},${r.lat < 0 ? 'S' : 'N'},${min(r.lon, 3)},${r.lon < 0 ? 'W' : 'E'}`;
    return [
      sum(`${talker}GGA,${hms},${place},1,09,0.9,${(r.altFt * FT).toFixed(1)},M,47.0,M,,`),
      sum(
        `${talker}RMC,${hms},A,${place},${r.gs.toFixed(2)},${r.track.toFixed(1)},${two(t.getUTCDate())}${two(t.getUTCMonth() + 1)}${two(t.getUTCFullYear() % 100)},,,A`,
      ),
      ...(d.chance(0.1) ? [sum(`${talker}GSV,3,1,11,03,03,111,00`)] : []),
    ];
  });
  return { format: 'nmea', shape: 'nmea', text: lines.join('\r\n') };
};
/** The file a device writes. */
export function written(f: Flight, dev: Device, rows: readonly Sensed[], seed: number): Written {
  const d = drawing(seed + 3);
  if (dev.kind !== 'tablet') return csv(f, dev, rows, seed);
  return d.of([csv, csv, gpx, gpx, igc, kml, nmea])(f, dev, rows, seed);
}
