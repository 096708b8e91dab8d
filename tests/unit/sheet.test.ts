import { describe, expect, it } from 'vitest';
import { airframes, types } from '@demo/fleet';
import { effectiveSheet, schoolDefaults, topicsFor } from '@/core/plan';
import schools from '@content/schools.json';
import { configurationDrag, fieldName, fieldUnit, pathWords, sheetDifferences, validateSheet } from '@/core/sheet';
import { formNode } from '@/domain/form';
import { type FormNode, emptyOf } from '@/domain/form-node';
import { ATTRIBUTE_KEYS } from '@/domain/handling';
import type { SchoolTopic } from '@/domain/programme';
import { Airframe, type Sourced, TypeSheet } from '@/domain/sheet';

const sheetOf = (code: string): TypeSheet =>
  structuredClone(
    types.find((t) => t.code === code) ??
      (() => {
        throw new Error(code);
      })(),
  );
const codes = (sheet: TypeSheet) => validateSheet(sheet).map((f) => f.code);

describe('the demo fleet', () => {
  it.each(types.map((t) => [t.code, t] as const))(
    '%s fits the schema and has every handling attribute',
    (_code, sheet) => {
      expect(TypeSheet.parse(sheet)).toEqual(sheet);
      expect(new Set(sheet.attributes.map((a) => a.key))).toEqual(new Set(ATTRIBUTE_KEYS));
    },
  );
  it('has exactly the two faults planted on purpose', () => {
    const found = types.flatMap((t) => validateSheet(t).map((f) => `${t.code} ${f.code} ${f.path}`));
    expect(found).toEqual(['serrana-esteva gate-distance approach.1.distanceM', 'planalto-p1r va-high speeds.va']);
  });
  it('has no fault that only one registration brings', () => {
    for (const a of airframes) {
      const type = types.find((t) => t.code === a.typeCode);
      expect(type && validateSheet(effectiveSheet(type, Airframe.parse(a))).length).toBe(
        type && validateSheet(type).length,
      );
    }
  });
});

/** Each row breaks one thing; the validator must name it, at the field where it is corrected. */
const BREAKS: [name: string, code: string, type: string, path: string, change: (s: TypeSheet) => void][] = [
  [
    'Vfe of full flap above that of the first step',
    'vfe-order',
    'serrana-carvalho',
    'speeds.vfe.1.speed',
    (s) => set(s.speeds.vfe[1]?.speed, 106),
  ],
  [
    'a flap limit below what is held at the gate',
    'targetAboveLimit',
    'alvor-c4g',
    'approach.3.speed',
    (s) => set(s.speeds.vfe[2]?.speed, 67),
  ],
  [
    'flap selected above its limit',
    'flapAboveLimit',
    'serrana-carvalho',
    'approach.1.flapDeg',
    (s) => set(s.speeds.vfe[1]?.speed, 75),
  ],
  [
    'gear selected above its limit',
    'gearAboveLimit',
    'bronze-b6',
    'approach.1.gear',
    (s) => set(s.speeds.vloExtend, 90),
  ],
  [
    'no limit for full flap',
    'vfe-missing',
    'alvor-c1',
    'speeds.vfe',
    (s) => {
      s.speeds.vfe.pop();
    },
  ],
  ['a stall higher with more flap', 'stall-order', 'alvor-c1', 'stalls.2.speed', (s) => set(s.stalls[2]?.speed, 46)],
  [
    'no stall speed for a setting',
    'stall-missing',
    'alvor-c1',
    'stalls',
    (s) => {
      s.stalls = s.stalls.filter((x) => x.flapDeg !== 20);
    },
  ],
  ['a wing area of another aeroplane', 'stall-lift', 'serrana-urze', 'stalls.0.speed', (s) => set(s.wing.areaM2, 9)],
  ['Va far too low', 'va-low', 'planalto-p2', 'speeds.va', (s) => set(s.speeds.va, 90)],
  ['Vx above Vy', 'speed-order', 'alvor-c1', 'speeds.vx', (s) => set(s.speeds.vx, 70)],
  ['Vno above Vne', 'speed-order', 'alvor-c1', 'speeds.vno', (s) => set(s.speeds.vno, 150)],
  ['Vmca above Vsse', 'vmca-vsse', 'planalto-p2', 'twin.vsse', (s) => set(s.twin?.vmca, 80)],
  ['Vyse below Vsse', 'vsse-vyse', 'orla-mare', 'twin.vyse', (s) => set(s.twin?.vyse, 75)],
  [
    'a final gate below Vyse',
    'gate-below-asymmetric',
    'planalto-p2',
    'approach.2.speed',
    (s) => set(s.approach[2]?.speed, 86),
  ],
  [
    'a twin without asymmetric speeds',
    'twin-missing',
    'planalto-p2',
    'twin',
    (s) => {
      s.twin = null;
    },
  ],
  [
    'retraction above extension',
    'gear-speed-order',
    'planalto-p1r',
    'speeds.vloRetract',
    (s) => set(s.speeds.vloRetract, 130),
  ],
  [
    'fixed gear with gear speeds',
    'gear-speeds-fixed',
    'alvor-c1',
    'speeds.vloExtend',
    (s) => {
      s.speeds.vloExtend = { value: 100, source: 'handbook', ref: 'x' };
    },
  ],
  [
    'fifty feet over the threshold with the aim at sixty metres',
    'threshold-height',
    'alvor-c1',
    'approach.3.heightFt',
    (s) => {
      const g = s.approach[3];
      if (g) g.heightFt = 50;
    },
  ],
  [
    'a touchdown point before the aim point',
    'touchdown-before-aim',
    'alvor-c1',
    'landing.touchdownM',
    (s) => set(s.landing.touchdownM, 40),
  ],
  [
    'a touchdown point the handbook’s flare does not reach',
    'touchdown-flare',
    'alvor-c1',
    'landing.touchdownM',
    (s) => set(s.landing.touchdownM, 160),
  ],
  [
    'less air distance than the straight path',
    'air-distance',
    'alvor-c1',
    'distances.landing',
    (s) => {
      for (const r of s.distances?.landing ?? []) r.over50FtM = r.groundRollM + 120;
    },
  ],
  ['too slow at the threshold', 'stallMargin', 'alvor-c1', 'approach.3.speed', (s) => set(s.approach[3]?.speed, 52)],
  [
    'too steep a path',
    'slope',
    'alvor-c1',
    'approach.3.distanceM',
    (s) => {
      const g = s.approach[2];
      if (g) g.distanceM = 500;
    },
  ],
  [
    'a falling school that does not fall',
    'notFalling',
    'lume-faisca',
    'approach.2.speed',
    (s) => set(s.approach[2]?.speed, 96),
  ],
  [
    'forty knots lost in four hundred metres',
    'cannot-slow',
    'alvor-c4g',
    'approach.1.distanceM',
    (s) => {
      const g = s.approach[0];
      if (g) {
        g.distanceM = 3500;
        g.heightFt = 740;
        set(g.speed, 128);
      }
    },
  ],
  [
    'a glide no aeroplane of this shape has',
    'polar-span',
    'serrana-urze',
    'wing.bestGlideRatio',
    (s) => set(s.wing.bestGlideRatio, 22),
  ],
  [
    'an envelope that ends below the maximum mass',
    'envelope-top',
    'alvor-c1',
    'loading.envelope',
    (s) => {
      for (const p of s.loading?.envelope ?? []) p.massKg = Math.min(p.massKg, 740);
    },
  ],
  [
    'an empty arm that takes the usual load out of the envelope',
    'usual-load-outside',
    'serrana-carvalho',
    'loading.envelope',
    (s) => set(s.loading?.emptyArmM, 0.75),
  ],
  [
    'a hole in the distance table',
    'distance-grid',
    'alvor-c1',
    'distances.landing',
    (s) => {
      s.distances?.landing.pop();
    },
  ],
  [
    'a dial that does not rise',
    'dial-not-rising',
    'alvor-c1',
    'dial.table',
    (s) => {
      const r = s.dial.table[1];
      if (r) r.correction = -40;
    },
  ],
  [
    'a handling word that is not one',
    'attribute-value',
    'alvor-c1',
    'attributes.1.value',
    (s) => {
      const a = s.attributes[1];
      if (a) a.value = 'enormous';
    },
  ],
  [
    'wheels that contradict the gear',
    'attribute-disagrees',
    'alvor-c1',
    'attributes.16.value',
    (s) => {
      const a = s.attributes.find((x) => x.key === 'gear');
      if (a) a.value = 'retractable';
    },
  ],
  [
    'the higher of two limits governs',
    'limit-not-least',
    'alvor-c1',
    'speeds.vne',
    (s) => {
      s.speeds.vne.others = [{ value: 140, source: 'placard', ref: 'panel' }];
    },
  ],
  [
    'a flap of the crosswind table that is not there',
    'flap-table-step',
    'alvor-c1',
    'crosswind.flapTable.0.maxFlapDeg',
    (s) => {
      const r = s.crosswind.flapTable[0];
      if (r) r.maxFlapDeg = 25;
    },
  ],
  [
    'a consumer that needs something unknown',
    'depends-on-unknown',
    'alvor-c4g',
    'electrical.consumers.0.dependsOn',
    (s) => {
      s.electrical?.consumers[0]?.dependsOn.push('flux');
    },
  ],
];
function set(s: Sourced | null | undefined, value: number): void {
  if (!s) throw new Error('no such number');
  s.value = value;
}

describe('the validator', () => {
  it.each(BREAKS)('finds %s', (_name, code, type, path, change) => {
    const sheet = sheetOf(type);
    if (type === 'planalto-p1r') set(sheet.speeds.va, 113);
    expect(codes(sheet)).toEqual([]);
    change(sheet);
    const hit = validateSheet(sheet).find((f) => f.code === code);
    expect(hit, `found: ${codes(sheet).join(', ')}`).toBeDefined();
    expect(hit?.path).toBe(path);
  });
  it('takes the smaller flap drag between two rows and adds the gear when down', () => {
    const b6 = sheetOf('bronze-b6');
    expect(configurationDrag(b6, 0, 'up')).toEqual([]);
    expect(configurationDrag(b6, 20, 'down')).toEqual([0.025, 0.018]);
  });
});

describe('differences', () => {
  it('name the field, both values and their sources', () => {
    const before = sheetOf('alvor-c1');
    const after = sheetOf('alvor-c1');
    set(after.speeds.vfe[0]?.speed, 84);
    after.temperatures = [];
    after.coolingClimb = { value: 75, source: 'house', ref: 'Flying order 7' };
    expect(sheetDifferences(before, after, 'kt').map((d) => `${d.label}: ${d.from} > ${d.to}`)).toEqual([
      'speeds, flap limits, flap 10\u00b0, speed: 88 kt (handbook, Handbook 2.2) > 84 kt (handbook, Handbook 2.2)',
      'temperatures, oil: oil, \u00b0C, low 40, high 118, Run-up above the low mark. > removed',
      'cooling climb: not on the sheet > 75 kt (house, Flying order 7)',
    ]);
    expect(sheetDifferences(before, before, 'kt')).toEqual([]);
  });
  it('know the names and units of fields', () => {
    expect(fieldName('masses.maxTakeoffKg')).toBe('maximum take-off');
    expect([
      fieldUnit('masses.emptyKg.value', 'kt'),
      fieldUnit('speeds.vne', 'mph'),
      fieldUnit('wing.areaM2', 'kt'),
      fieldUnit('electrical.batteryAh', 'kt'),
      fieldUnit('gear.brakes', 'kt'),
    ]).toEqual(['kg', 'mph', 'm\u00b2', 'Ah', '']);
    expect(pathWords('approach.1.speed.value', sheetOf('alvor-c1'))).toBe('approach schedule, Base, speed');
  });
});

describe('the form of a sheet', () => {
  const walk = (node: FormNode, value: unknown, path: string): string[] => {
    switch (node.kind) {
      case 'object':
        return node.fields.flatMap((f) => walk(f.node, (value as Record<string, unknown>)[f.key], `${path}.${f.key}`));
      case 'list':
        return (value as unknown[]).flatMap((v, i) => walk(node.item, v, `${path}.${i}`));
      case 'optional':
        return value === null || value === undefined ? [] : walk(node.inner, value, path);
      case 'sourced':
        return typeof (value as Sourced).value === 'number' ? [] : [path];
      case 'number':
        return typeof value === 'number' ? [] : [path];
      case 'choice':
        return node.options.includes(String(value)) ? [] : [path];
      case 'yes-no':
        return typeof value === 'boolean' ? [] : [path];
      case 'text':
      case 'date':
      case 'fixed':
        return typeof value === 'string' ? [] : [path];
      case 'map':
      case 'variants':
        return typeof value === 'object' && value !== null ? [] : [path];
    }
  };
  it('covers every field of every sheet and airframe, each with a name', () => {
    const node = formNode(TypeSheet);
    for (const t of types) expect(walk(node, t, t.code)).toEqual([]);
    for (const a of airframes) expect(walk(formNode(Airframe), a, a.registration)).toEqual([]);
    const names = (n: FormNode): string[] =>
      n.kind === 'object'
        ? n.fields.flatMap((f) => [f.key, ...names(f.node)])
        : n.kind === 'list'
          ? names(n.item)
          : n.kind === 'optional'
            ? names(n.inner)
            : [];
    const unnamed = [...new Set([...names(node), ...names(formNode(Airframe))])].filter(
      (k) => k !== 'schema' && fieldName(k) === k && /[A-Z]/.test(k),
    );
    expect(unnamed).toEqual([]);
  });
  it('starts a new row without guessing a number', () => {
    const node = formNode(TypeSheet);
    const stalls = node.kind === 'object' ? node.fields.find((f) => f.key === 'stalls')?.node : undefined;
    expect(stalls?.kind === 'list' && emptyOf(stalls.item)).toEqual({
      flapDeg: null,
      speed: { value: null, source: 'handbook', ref: '' },
    });
  });
});

describe('schools a checkout starts with', () => {
  it('follow the sheet where it speaks', () => {
    const topics = schools.topics as SchoolTopic[];
    expect(schoolDefaults(sheetOf('bronze-b15'), topics)).toMatchObject({
      'approach-speed': 'reducing',
      'wing-drop': 'together',
      'touch-and-go': 'full-stop',
    });
    expect(schoolDefaults(sheetOf('alvor-c1'), topics)).toMatchObject({
      'approach-speed': 'constant',
      'wing-drop': 'rudder',
      'touch-and-go': 'allowed',
      gust: 'half',
    });
  });
  it.each([
    ['serrana-urze', ['first-landing', 'crosswind-attitude', 'touch-and-go']],
    ['serrana-carvalho', ['first-landing', 'crosswind-attitude', 'flap-crosswind', 'flap-retraction', 'touch-and-go']],
    ['planalto-p2', ['flap-crosswind', 'flap-retraction', 'map-up']],
    ['alvor-c4g', ['flap-crosswind', 'flap-retraction', 'map-up']],
  ])('%s is asked nothing of what it has not', (code, asked) => {
    const topics = schools.topics as SchoolTopic[];
    const only = topicsFor(sheetOf(code), topics);
    expect(only.filter((t) => t.needs).map((t) => t.key)).toEqual(asked);
    expect(only).toHaveLength(topics.filter((t) => !t.needs).length + asked.length);
  });
});

describe('the view from the seat', () => {
  it('must agree with what is said of the nose in level flight', () => {
    const sheet = sheetOf('lume-faisca');
    set(sheet.sight?.attitudes.find((a) => a.name === 'level')?.pitchDeg, 9);
    const found = validateSheet(sheet).find((f) => f.code === 'level-picture');
    expect(found?.params).toMatchObject({ measured: 'above the horizon', above: true });
    sheet.sight = null;
    expect(codes(sheet)).not.toContain('level-picture');
  });
});
