/**
 * Every number of a brief worked out a second time, by hand formulas from the handbook page of the sheet to the figure
 * on the screen. Nothing here comes from the application's own computation: types of data are all it shares.
 */
import type { BriefChoices } from '../../src/domain/brief';
import type { House } from '../../src/domain/programme';
import type { Aerodrome, TypeSheet } from '../../src/domain/sheet';

export interface Case {
  sheet: TypeSheet;
  aerodrome: Aerodrome;
  house: House;
  choices: BriefChoices;
  /** Proven crosswind and step of the pilot, kt. */
  ladder: { provenKt: number; ladderKt: number };
  airframeCrosswindKt: number | null;
  /** The school's limit for this type, kt. */
  schoolCrosswindKt: number;
}
export type Numbers = Record<string, number | string | boolean | null>;

const rad = (deg: number) => (deg / 180) * Math.PI;
const KNOT = 1852 / 3600;
const FOOT = 0.3048;
const G = 9.80665;

/** A straight line between the two points around x; flat beyond the ends. */
function line(rows: readonly (readonly [number, number])[], x: number): number {
  const sorted = [...rows].sort((a, b) => a[0] - b[0]);
  const first = sorted[0];
  const last = sorted[sorted.length - 1];
  if (!first || !last) return 0;
  if (x <= first[0]) return first[1];
  if (x >= last[0]) return last[1];
  for (let i = 1; i < sorted.length; i++) {
    const [x1, y1] = sorted[i - 1] ?? first;
    const [x2, y2] = sorted[i] ?? last;
    if (x <= x2) return y1 + ((x - x1) / (x2 - x1)) * (y2 - y1);
  }
  return last[1];
}

/** The dial both ways: what it means, and what it must read. The second by halving, not by a formula. */
function dialOf(sheet: TypeSheet) {
  const knots = sheet.dial.unit === 'mph' ? 1609.344 / 1852 : 1;
  const table = sheet.dial.table.map((r) => [r.ias, r.correction] as const);
  const cas = (reading: number) => (reading + line(table, reading)) * knots;
  const reading = (casKt: number) => {
    let low = 0;
    let high = 600;
    for (let i = 0; i < 80; i++) {
      const mid = (low + high) / 2;
      if (cas(mid) < casKt) low = mid;
      else high = mid;
    }
    return (low + high) / 2;
  };
  return { cas, reading, knots };
}

/** Three corners of a table, each axis by its own two rows: mass, then height, then temperature. */
function grid(rows: readonly { massKg: number; pressureAltFt: number; oatC: number }[], value: (i: number) => number) {
  const axis = (pick: (r: (typeof rows)[number]) => number) => [...new Set(rows.map(pick))].sort((a, b) => a - b);
  const masses = axis((r) => r.massKg);
  const heights = axis((r) => r.pressureAltFt);
  const airs = axis((r) => r.oatC);
  return (massKg: number, pressureAltFt: number, oatC: number): number | null => {
    // Lighter or lower than the table: its least row. Beyond it: no number.
    const m = Math.max(massKg, masses[0] ?? massKg);
    const p = Math.max(pressureAltFt, heights[0] ?? pressureAltFt);
    const out = (v: number, all: number[]) => v < (all[0] ?? v) - 1e-9 || v > (all[all.length - 1] ?? v) + 1e-9;
    if (rows.length === 0 || out(m, masses) || out(p, heights) || out(oatC, airs)) return null;
    const cell = (mm: number, pp: number, tt: number) =>
      value(rows.findIndex((r) => r.massKg === mm && r.pressureAltFt === pp && r.oatC === tt));
    return line(
      masses.map((mm) => [
        mm,
        line(
          heights.map((pp) => [
            pp,
            line(
              airs.map((tt) => [tt, cell(mm, pp, tt)] as const),
              oatC,
            ),
          ]),
          p,
        ),
      ]),
      m,
    );
  };
}

/** Inside a polygon by the sum of the angles under which its sides are seen; on a side counts as inside. */
function inside(polygon: readonly { armM: number; massKg: number }[], armM: number, massKg: number): boolean {
  let turned = 0;
  for (let i = 0; i < polygon.length; i++) {
    const a = polygon[i];
    const b = polygon[(i + 1) % polygon.length];
    if (!a || !b) continue;
    const [ax, ay, bx, by] = [a.armM - armM, (a.massKg - massKg) / 1000, b.armM - armM, (b.massKg - massKg) / 1000];
    const cross = ax * by - ay * bx;
    const dot = ax * bx + ay * by;
    if (Math.abs(cross) < 1e-12 && dot <= 0) return true;
    turned += Math.atan2(cross, dot);
  }
  return Math.abs(turned) > Math.PI;
}

/** The sheet as it holds on the surface of a strip; an amphibian's own schedule is the one for water. */
function onSurface(sheet: TypeSheet, strip: string): TypeSheet {
  if (sheet.surface !== 'amphibian' || strip === 'water' || !sheet.onLand) return sheet;
  const l = sheet.onLand;
  return {
    ...sheet,
    approach: l.approach,
    distances: l.distances,
    landing: { ...sheet.landing, minWidthM: l.minWidthM, aimPointM: l.aimPointM, touchdownM: l.touchdownM },
  };
}

/** Everything a brief shows as a number, by name. */
export function recompute(c: Case): Numbers {
  const { aerodrome, house, choices } = c;
  const strip = aerodrome.runways.find((r) => r.ends.some((e) => e.ident === choices.runwayEnd));
  const end = strip?.ends.find((e) => e.ident === choices.runwayEnd);
  const { wind } = choices;
  if (!strip || !end || !wind || wind.fromDeg === null || choices.qnhHpa === null || choices.oatC === null)
    throw new Error('a case has a runway, a wind and the air');
  const sheet = onSurface(c.sheet, strip.surface);
  const dial = dialOf(sheet);
  const out: Numbers = {};
  const put = (name: string, value: Numbers[string]) => (out[name] = value);

  // Mass
  const massKg =
    sheet.masses.emptyKg.value +
    choices.pilotKg +
    choices.instructorKg +
    choices.rearKg +
    choices.baggageKg +
    0.72 * choices.fuelL;
  put('mass, kg', massKg);

  // Air: ISA pressure at the pressure altitude, density by the gas law.
  const elevationFt = strip.elevationFt;
  const pressureAltFt = elevationFt + 145366.45 * (1 - (choices.qnhHpa / 1013.25) ** 0.190284);
  const pascal = 101325 * (1 - (0.0065 * pressureAltFt * FOOT) / 288.15) ** 5.25588;
  const density = pascal / (287.05287 * (choices.oatC + 273.15));
  const sigma = density / 1.225;
  const densityAltFt = 145442.16 * (1 - sigma ** 0.234969);
  put('pressure altitude, ft', pressureAltFt);
  put('density altitude, ft', densityAltFt);
  put('warmer than standard, °C', choices.oatC - (15 - 0.0065 * pressureAltFt * FOOT));
  put('true over calibrated', 1 / Math.sqrt(sigma));

  // Wind on the runway used: true wind and true runway.
  const windTrue = wind.reference === 'true' ? wind.fromDeg : wind.fromDeg + aerodrome.variationDeg;
  const angle = rad(windTrue - end.trueBearingDeg);
  const headKt = wind.kt * Math.cos(angle);
  const crossKt = wind.kt * Math.sin(angle);
  const gustCross = wind.gustKt === null ? null : wind.gustKt * Math.sin(angle);
  const tailKt = Math.max(0, -headKt);
  const gustTail = wind.gustKt === null ? tailKt : Math.max(tailKt, -wind.gustKt * Math.cos(angle));
  put('headwind, kt', headKt);
  put('crosswind, kt', crossKt);
  put('crosswind in gusts, kt', gustCross);
  put('tailwind in gusts, kt', gustTail);

  // Whose limit governs, both aboard.
  const limits = [
    sheet.crosswind.limitationKt?.value ?? null,
    c.airframeCrosswindKt,
    c.schoolCrosswindKt,
    choices.instructorLimitKt,
  ].filter((v): v is number => v !== null);
  const governing = Math.min(...limits);
  const strongest = Math.max(Math.abs(crossKt), Math.abs(gustCross ?? 0));
  const tailLimit = sheet.crosswind.tailwindLimitKt?.value ?? house.tailwindLimitKt;
  const spread = wind.gustKt === null ? 0 : wind.gustKt - wind.kt;
  const demonstrated = sheet.crosswind.demonstratedKt?.value ?? Infinity;
  put('governing limit, kt', governing);
  put(
    'wind verdict',
    strongest > governing + 1e-9 || gustTail > tailLimit + 1e-9 || spread > house.gustSpreadLimitKt + 1e-9
      ? 'outside'
      : Math.abs(crossKt) > governing - 2 || tailLimit - gustTail < 0 || strongest > demonstrated + 1e-9
        ? 'edge'
        : 'within',
  );

  // Flap by the crosswind table, mean and gust alike.
  const rows = [...sheet.crosswind.flapTable].sort((a, b) => (a.upToKt ?? Infinity) - (b.upToKt ?? Infinity));
  const row = rows.find((r) => strongest <= (r.upToKt ?? Infinity) + 1e-9);
  const withheld = rows.length > 0 && !row;
  const sheetFlap = Math.max(...sheet.approach.map((g) => g.flapDeg));
  const flap = Math.min(sheetFlap, choices.maxFlapDeg ?? sheetFlap, row ? row.maxFlapDeg : sheetFlap);
  put('flap held, °', flap);

  // Gates
  const ratio = Math.sqrt(massKg / sheet.masses.refMassKg);
  const stallOf = (deg: number) => {
    const s = sheet.stalls.find((x) => x.flapDeg === deg);
    return s ? dial.cas(s.speed.value) : null;
  };
  const share = choices.gustSchool === 'none' ? 0 : choices.gustSchool === 'half' ? 0.5 : 1;
  const gates = sheet.approach.map((g) => {
    const deg = Math.min(g.flapDeg, flap);
    const handbook = dial.cas(g.speed.value);
    const from = stallOf(g.flapDeg);
    const to = stallOf(deg);
    if ((withheld && deg > 0) || (deg !== g.flapDeg && (from === null || to === null)))
      return { g, deg, cas: null, handbook };
    const base = deg === g.flapDeg || from === null || to === null ? handbook : (handbook * to) / from;
    const additive = g.finalGate ? Math.min(share * Math.max(0, spread), house.gustCapKt) : 0;
    const assured = sheet.twin !== null && g.heightFt <= 100;
    const wanted = base * (assured ? Math.max(1, ratio) : ratio) + additive;
    const floored = sheet.twin && !assured ? Math.max(wanted, dial.cas(sheet.twin.vyse.value)) : wanted;
    const vfe = sheet.speeds.vfe.filter((v) => deg > 0 && v.flapDeg >= deg).sort((a, b) => a.flapDeg - b.flapDeg)[0];
    const top = vfe ? dial.cas(vfe.speed.value) - 3 : Infinity;
    return { g, deg, cas: Math.min(floored, top), limited: floored > top + 1e-9, handbook };
  });
  for (const { g, deg, cas, limited } of gates) {
    put(`${g.name}: altimeter, ft`, Math.round(elevationFt + g.heightFt));
    put(`${g.name}: flap, °`, deg);
    const r = cas === null ? null : dial.reading(cas);
    put(`${g.name}: fly`, r === null ? null : limited ? Math.floor(r + 1e-6) : Math.ceil(r - 1e-6));
    const vs = stallOf(deg);
    put(`${g.name}: over the stall`, cas === null || vs === null ? null : cas / (vs * ratio));
    const lights = end.slopeLightsDeg;
    const lightsM = end.slopeLightsM;
    put(
      `${g.name}: white lights`,
      lights && lightsM !== null && g.finalGate && g.heightFt > 100
        ? [-30, -10, 10, 30].filter(
            (minutes) => (Math.atan2(g.heightFt * FOOT, g.distanceM + lightsM) * 180) / Math.PI > lights + minutes / 60,
          ).length
        : null,
    );
  }

  // Between the gates: time over the ground, path, and slowing at idle by the polar of the handbook's best glide.
  const vg = dial.cas(sheet.speeds.bestGlide.value) * KNOT;
  const wing = sheet.wing.areaM2.value;
  const ld = sheet.wing.bestGlideRatio.value;
  const clGlide = (2 * sheet.masses.refMassKg * G) / (1.225 * wing * vg * vg);
  const cd0 = clGlide / (2 * ld);
  const k = cd0 / clGlide ** 2;
  gates.slice(1).forEach((b, i) => {
    const a = gates[i];
    if (!a || a.cas === null || b.cas === null || a.g.distanceM <= b.g.distanceM) return;
    const [v1, v2] = [a.cas / Math.sqrt(sigma), b.cas / Math.sqrt(sigma)];
    const mean = ((v1 + v2) / 2) * KNOT;
    const ground = mean - headKt * KNOT;
    const distance = a.g.distanceM - b.g.distanceM;
    const seconds = distance / ground;
    const drop = (a.g.heightFt - b.g.heightFt) * FOOT;
    const added =
      ([...sheet.drag.flap].sort((x, y) => y.flapDeg - x.flapDeg).find((f) => f.flapDeg <= a.deg)?.deltaCd0.value ??
        0) + (a.g.gear === 'down' ? (sheet.drag.gearDeltaCd0?.value ?? 0) : 0);
    const q = 0.5 * density * mean * mean;
    const cl = (massKg * G) / (q * wing);
    const slowing = G * ((cd0 + added + k * cl * cl) / cl - drop / seconds / mean);
    const needed = ((v1 - v2) * KNOT) / seconds;
    put(`${b.g.name}: time to it, s`, seconds);
    put(`${b.g.name}: path, °`, (Math.atan(drop / distance) * 180) / Math.PI);
    put(
      `${b.g.name}: slows`,
      needed <= 0 || slowing >= 1.2 * needed - 1e-9 ? 'yes' : slowing >= needed - 1e-9 ? 'tight' : 'no',
    );
  });

  // Stall, manoeuvring and best glide today, as the dial reads them.
  for (const s of sheet.stalls) put(`stall flap ${s.flapDeg}°`, dial.reading(dial.cas(s.speed.value) * ratio));
  put('manoeuvring', dial.reading(dial.cas(sheet.speeds.va.value) * ratio));
  put('best glide', dial.reading(dial.cas(sheet.speeds.bestGlide.value) * ratio));

  // Runway needed: table, each stated factor once, then safety.
  const rule = house.runway;
  const wet = choices.surfaceState === 'wet';
  const state = rule.surfaces.find((s) => s.surface === strip.surface && s.state === (wet ? 'wet' : 'dry'));
  const first = strip.ends[0]?.ident === end.ident;
  const known = strip.ends.map((e) => e.elevationFt);
  const rise =
    known[0] != null && known[1] != null ? ((known[1] - known[0]) * FOOT * 100) / strip.lengthM : strip.slopePct;
  const uphill = first ? rise : -rise;
  const windFactor =
    gustTail > 0.5
      ? 1 + (0.1 * rule.tailwindShare * gustTail) / rule.tailKtPerTenth
      : headKt > 0.5
        ? 1 - (0.1 * rule.headwindShare * headKt) / rule.headKtPerTenth
        : 1;
  const last = gates[gates.length - 1];
  const faster = last?.cas ? Math.max(1, last.cas / (last.handbook * ratio)) : null;
  const distance = (kind: 'takeoff' | 'landing' | 'stop') => {
    const table = kind === 'stop' ? [] : (sheet.distances?.[kind] ?? []);
    const stop = sheet.twin?.accelerateStop ?? [];
    const at =
      kind === 'stop' ? grid(stop, (i) => stop[i]?.distanceM ?? NaN) : grid(table, (i) => table[i]?.over50FtM ?? NaN);
    const over = at(massKg, pressureAltFt, choices.oatC ?? 0);
    const roll =
      kind === 'stop'
        ? null
        : grid(table, (i) => table[i]?.groundRollM ?? NaN)(massKg, pressureAltFt, choices.oatC ?? 0);
    const surface = !state ? 1 : kind === 'stop' ? Math.max(state.takeoff, state.landing) : state[kind];
    const against = kind === 'takeoff' ? uphill : kind === 'landing' ? -uphill : Math.abs(uphill);
    const speed = kind === 'landing' && faster !== null && faster > 1.001 ? faster ** 2 : 1;
    const factor =
      surface *
      (against > 0 ? 1 + rule.slopePerPct * against : 1) *
      windFactor *
      speed *
      (kind === 'landing' ? rule.safetyLanding : rule.safetyTakeoff);
    return { over: over === null ? null : over * factor, roll: roll === null ? null : roll * factor };
  };
  const takeoff = distance('takeoff');
  const landing = last?.cas ? distance('landing') : { over: null, roll: null };
  put('take-off over 50 ft, m', takeoff.over);
  put('take-off in hand, m', takeoff.over === null ? null : strip.lengthM - takeoff.over);
  put('landing over 50 ft, m', landing.over);
  put('landing in hand, m', landing.over === null ? null : strip.lengthM - landing.over);

  // Fuel
  const flow = sheet.engine.flowLPerH.value;
  const reserve = house.reserveMin ?? (choices.night ? 45 : 30);
  const usableMin = Math.max(0, (choices.fuelL / flow) * 60 - reserve);
  put('fuel to the reserve, min', usableMin);
  put(
    'circuits that fit',
    Math.floor(Math.max(0, Math.min(choices.bookingMin, usableMin) - house.groundMin) / house.circuitMin + 1e-9),
  );
  put(
    'flow by the formula, L/h',
    ((sheet.engine.powerHp.value * sheet.engine.count * 0.65 * (sheet.engine.induction === 'injected' ? 0.45 : 0.49)) /
      6) *
      3.785412,
  );

  // Loading, both aboard and alone
  const burn = Math.min(choices.fuelL, (flow * Math.max(0, choices.bookingMin - house.groundMin)) / 60);
  if (sheet.loading) {
    const held: Record<string, number> = {
      pilot: choices.pilotKg,
      instructor: choices.instructorKg,
      rear: choices.rearKg,
      baggage: choices.baggageKg,
    };
    for (const alone of [false, true]) {
      const gone = (role: string) =>
        alone &&
        (role === 'instructor' ||
          (role === 'rear' && !house.soloKeeps.rear) ||
          (role === 'baggage' && !house.soloKeeps.baggage));
      const parts: [number, number][] = [
        [sheet.masses.emptyKg.value, sheet.loading.emptyArmM.value],
        ...sheet.loading.stations.map((s): [number, number] => [gone(s.role) ? 0 : (held[s.role] ?? 0), s.armM.value]),
      ];
      for (const [when, litres] of [
        ['take-off', choices.fuelL],
        ['landing', choices.fuelL - burn],
        ['no fuel', 0],
      ] as const) {
        const all: [number, number][] = [...parts, [0.72 * litres, sheet.loading.fuelArmM.value]];
        const kg = all.reduce((sum, [m]) => sum + m, 0);
        const arm = all.reduce((sum, [m, a]) => sum + m * a, 0) / kg;
        const who = alone ? 'alone' : 'both';
        put(`${who}, ${when}: mass, kg`, kg);
        put(`${who}, ${when}: centre, m`, arm);
        put(`${who}, ${when}: inside`, inside(sheet.loading.envelope, arm, kg));
      }
    }
  }

  // Battery, minute by minute in hundredths: what is on draws until it is shed.
  if (sheet.electrical) {
    const usable = sheet.electrical.batteryAh.value * (sheet.electrical.usableShare?.value ?? 0.7);
    const draws = sheet.electrical.consumers;
    put('battery, all on, min', (usable / draws.reduce((sum, d) => sum + d.amps, 0)) * 60);
    const shedAt = (name: string, seen: string[] = []): number => {
      const d = draws.find((x) => x.name === name);
      if (!d || seen.includes(name)) return Infinity;
      return Math.min(d.shedAtMin ?? Infinity, ...d.dependsOn.map((on) => shedAt(on, [...seen, name])));
    };
    const steps = [...new Set(draws.map((d) => shedAt(d.name)).filter((t) => Number.isFinite(t)))].sort(
      (a, b) => a - b,
    );
    let left = usable * 60;
    let now = 0;
    let dead: number | null = null;
    for (const next of [...steps, Infinity]) {
      const load = draws.filter((d) => shedAt(d.name) > now).reduce((sum, d) => sum + d.amps, 0);
      if (load > 0 && left / load <= next - now) {
        dead = now + left / load;
        break;
      }
      left -= load * (next - now);
      now = next;
    }
    put('battery, shed, min', dead);
  }

  // One engine
  if (sheet.twin) {
    const { oneEngineClimbFpm, oneEngineCeilingFt, vyse } = sheet.twin;
    const [r0, ceiling] = [oneEngineClimbFpm.value, oneEngineCeilingFt.value];
    const vyseTas = dial.cas(vyse.value) / Math.sqrt(sigma);
    const at = (densityFt: number) => r0 * (1 - densityFt / ceiling);
    put('one engine, field, ft/min', at(densityAltFt));
    put('one engine, field, ft per NM', (at(densityAltFt) * 60) / (vyseTas + gustTail));
    put('one engine, circuit, ft/min', at(densityAltFt + aerodrome.circuitHeightFt));
    put('one engine, demonstration, ft/min', at(densityAltFt + house.demonstrationFt));
    put('one engine, ceiling, ft', ceiling - (densityAltFt - elevationFt));
    put('one engine, 50 ft/min at, ft', ceiling * (1 - 50 / r0) - (densityAltFt - elevationFt));
    // Drift-down from 2000 ft above the ceiling, stepped in hundredths of a minute instead of by the logarithm.
    let height = ceiling + 2000;
    let minutes = 0;
    while (-at(height) > 50) {
      const half = height + (at(height) * 0.01) / 2;
      height += at(half) * 0.01;
      minutes += 0.01;
    }
    put('one engine, drift-down, min', minutes);
    const stop = distance('stop');
    put('accelerate and stop, m', stop.over);
    put(
      'abort point, m',
      stop.over === null || takeoff.roll === null ? null : Math.max(0, strip.lengthM - (stop.over - takeoff.roll)),
    );
    if (end.obstacle) {
      const asks = (end.obstacle.heightFt * 1852) / end.obstacle.pastEndM;
      put('obstacle asks, ft per NM', asks);
      put('obstacle', (at(densityAltFt) * 60) / (vyseTas + gustTail) >= asks ? 'clears' : 'does-not-clear');
    }
  }
  put('stabilised gate, ft QNH', Math.round(elevationFt + house.stabilisedFt));
  return out;
}
