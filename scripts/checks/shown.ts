/** The same numbers as a brief holds them, by the names of `recompute`. */
import type { BriefResult } from '../../src/core/approach';
import type { Numbers } from './recompute';

export function shown(b: BriefResult, runwayEnd: string): Numbers {
  const out: Numbers = {};
  const put = (name: string, value: Numbers[string] | undefined) => (out[name] = value ?? null);
  const used = b.runways.find((r) => r.ident === runwayEnd);
  put('mass, kg', b.massKg);
  put('pressure altitude, ft', b.air.pressureAltFt);
  put('density altitude, ft', b.air.densityAltFt);
  put('warmer than standard, °C', b.air.isaDevC);
  put('true over calibrated', b.air.tasShare);
  put('headwind, kt', used?.headwindKt);
  put('crosswind, kt', used?.crosswindKt);
  put('crosswind in gusts, kt', used?.gustCrosswindKt);
  put('tailwind in gusts, kt', Math.max(used?.tailwindKt ?? 0, used?.gustTailwindKt ?? 0));
  put('governing limit, kt', b.crosswind.governingKt);
  put('wind verdict', b.crosswind.verdict);
  put('flap held, °', b.flapHeldDeg);
  for (const g of b.gates) {
    put(`${g.name}: altimeter, ft`, g.altimeterFt);
    put(`${g.name}: flap, °`, g.flapDeg);
    put(`${g.name}: fly`, g.target);
    put(`${g.name}: over the stall`, g.margin?.marginLevel);
    put(`${g.name}: white lights`, g.whites);
  }
  for (const l of b.legs) {
    put(`${l.to}: time to it, s`, l.timeS);
    put(`${l.to}: path, °`, l.slopeDeg);
    put(`${l.to}: slows`, l.canSlow);
  }
  for (const s of b.vsToday) put(`stall flap ${s.flapDeg}°`, s.dial);
  put('manoeuvring', b.vaDial);
  put('best glide', b.bestGlideDial);
  put('take-off over 50 ft, m', b.takeoff?.need.over50M);
  put('take-off in hand, m', b.takeoff?.need.marginM);
  put('landing over 50 ft, m', b.landing?.need.over50M);
  put('landing in hand, m', b.landing?.need.marginM);
  put('fuel to the reserve, min', b.fuel.endurance.usableMin);
  put('circuits that fit', b.fuel.circuits.circuits);
  put('flow by the formula, L/h', b.fuel.formulaLPerH);
  if (b.loading)
    for (const [who, of] of [
      ['both', b.loading.dual],
      ['alone', b.loading.solo],
    ] as const)
      for (const [when, p] of [
        ['take-off', of.takeOff],
        ['landing', of.landing],
        ['no fuel', of.zeroFuel],
      ] as const) {
        put(`${who}, ${when}: mass, kg`, p.massKg);
        put(`${who}, ${when}: centre, m`, p.armM);
        put(`${who}, ${when}: inside`, p.inside);
      }
  if (b.electrics) {
    put('battery, all on, min', b.electrics.enduranceAllOnMin);
    put('battery, shed, min', b.electrics.busDeadMin);
  }
  const o = b.oneEngine;
  if (o) {
    const at = (where: string) => o.at.find((x) => x.where === where)?.climb;
    put('one engine, field, ft/min', at('field')?.rocFpm);
    put('one engine, field, ft per NM', at('field')?.gradientFtPerNm);
    put('one engine, circuit, ft/min', at('circuit')?.rocFpm);
    put('one engine, demonstration, ft/min', at('demonstration')?.rocFpm);
    put('one engine, ceiling, ft', o.absoluteCeilingFt);
    put('one engine, 50 ft/min at, ft', o.serviceCeilingFt);
    put('one engine, drift-down, min', o.drift?.timeMin);
    put('accelerate and stop, m', o.stop?.neededM);
    put('abort point, m', o.stop?.abortM);
    if (o.obstacle) {
      put('obstacle asks, ft per NM', o.obstacle.neededFtPerNm);
      put('obstacle', o.obstacle.verdict);
    }
  }
  put('stabilised gate, ft QNH', b.stabilised.altimeterFt);
  return out;
}
