import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  byPhase,
  habitCues,
  habits,
  kindAttributes,
  proposedKind,
  rankDifferences,
  recordedHours,
  wholeDaysSince,
} from '@/core/differences';
import { attributesBySchool, effectiveSheet } from '@/core/plan';
import { DifferenceRules } from '@/domain/differences';
import { ATTRIBUTES, ATTRIBUTE_KEYS } from '@/domain/handling';
import { KIND_KEYS, KINDS, type Kind, kindCode, kindOf } from '@/domain/kinds';
import type { Goal } from '@/domain/words';
import { airframes, types } from '../../demo/fleet';

const rules = DifferenceRules.parse(JSON.parse(readFileSync('content/differences.json', 'utf8')));
const type = (name: string) => {
  const found = types.find((t) => t.name.includes(name));
  if (!found) throw new Error(name);
  return found;
};
const flown = (name: string, hours = 300, lastFlown = '2026-11-10') => ({
  typeName: type(name).name,
  attributes: type(name).attributes,
  hours,
  lastFlown,
});
const ON = '2026-11-24';
const rank = (from: string[], to: string, goal: Goal) =>
  rankDifferences({
    flown: from.map((f) => flown(f)),
    to: type(to).attributes,
    typeAttributes: type(to).attributes,
    goals: [goal],
    rules,
    onDate: ON,
  });
const drops = (from: string, to: string, goal: Goal, n: number) =>
  rank([from], to, goal)
    .filter((r) => r.action === 'drop')
    .slice(0, n)
    .map((r) => r.key);

describe('from one type to another: what ranks first', () => {
  // Reasoned by hand: the wrong reflex first, then severity × exposure in the goal.
  it.each<[from: string, to: string, goal: Goal, first: string[], why: string]>([
    [
      'C1',
      'Carvalho',
      'tailwheel',
      ['ground-stability', 'tail-inertia', 'rudder-need'],
      'a swerve that no longer dies, the stick that must not go forward, feet that rest',
    ],
    [
      'C1',
      'Urze',
      'tailwheel',
      ['tail-inertia', 'ground-stability', 'brakes'],
      'slower swerve, so the stick comes before it; then heels',
    ],
    [
      'C1',
      'Esteva',
      'tailwheel',
      ['tail-inertia', 'ground-stability', 'flap-pitch'],
      'as the light one, and flap that moves the nose the other way',
    ],
    [
      'C1',
      'Faísca',
      'tailwheel',
      ['ground-stability', 'tail-inertia', 'speed-school'],
      'fast swerve, tail, and a speed that may never settle',
    ],
    [
      'C1',
      'B6',
      'high-performance',
      ['flap-pitch', 'tail-inertia', 'ground-stability'],
      'flap drops the nose, tail behind, swerve grows; less ground in this goal',
    ],
    ['C1', 'B15', 'high-performance', ['wing-drop', 'flap-pitch', 'tail-inertia'], 'the old foot alone rolls it over'],
    [
      'Urze',
      'B15',
      'high-performance',
      ['wing-drop', 'speed-school', 'stall-break'],
      'a light-type wing-drop habit into the very powerful type',
    ],
    [
      'Carvalho',
      'B15',
      'new-type',
      ['wing-drop', 'flap-pitch', 'speed-school'],
      'the same from a heavy one that lifts with flap',
    ],
    [
      'B6',
      'B15',
      'new-type',
      ['wing-drop', 'speed-school'],
      'big and heavy already: only the stall and the falling speed are opposite',
    ],
    [
      'B15',
      'C1',
      'interval-check',
      ['wing-drop', 'flap-pitch'],
      'and back again: aileron at once is the wrong hand in a light one',
    ],
    ['P1R', 'Maré', 'sea', ['gear', 'ground-stability'], 'wheels down by habit ends it on water'],
    ['C1', 'P2', 'multi-engine', ['pace'], 'nothing opposite between nosewheels: it all comes sooner'],
    ['C4G', 'Urze', 'tailwheel', ['tail-inertia', 'ground-stability'], 'nosewheel habits again, whatever the panel'],
    [
      'Urze',
      'Carvalho',
      'high-performance',
      ['glide', 'control-travel'],
      'it sinks where the light one floats, and the wheel goes further',
    ],
    ['Carvalho', 'Urze', 'tailwheel', ['glide', 'brakes'], 'a float the heavy one never had, then heels'],
    [
      'Faísca',
      'Carvalho',
      'tailwheel',
      ['control-travel', 'flare-height'],
      'small stick to long stick, and a higher eye',
    ],
    ['Urze', 'Faísca', 'tailwheel', ['speed-school', 'glide'], 'a speed that must fall, then a biplane that sinks'],
    [
      'P2',
      'Carvalho',
      'tailwheel',
      ['ground-stability', 'tail-inertia'],
      'nosewheel habits, whatever the number of engines',
    ],
  ])('%s to %s for %s: %j (%s)', (from, to, goal, first) => {
    expect(drops(from, to, goal, first.length)).toEqual(first);
  });
  it('opposite actions stand above everything, whatever the score', () => {
    for (const to of types)
      for (const from of types) {
        const rows = rank([from.name], to.name, 'new-type').filter((r) => r.action !== 'same');
        const lastOpposite = rows.map((r) => r.opposite).lastIndexOf(true);
        expect(
          rows.slice(0, lastOpposite + 1).every((r) => r.opposite),
          `${from.name} to ${to.name}`,
        ).toBe(true);
      }
  });
  it('from a type to itself everything is the same', () => {
    for (const t of types)
      expect(rank([t.name], t.name, 'interval-check').every((r) => r.action === 'same' && r.score === 0)).toBe(true);
  });
  it('what is new without an old reflex is added, not dropped', () => {
    const adds = rank(['C1'], 'P1R', 'complex')
      .filter((r) => r.action === 'add')
      .map((r) => r.key);
    expect(adds.slice(0, 2)).toEqual(['gear', 'lever-order']);
  });
});

describe('the habit', () => {
  it('is hours fading with 180 days, shares of one', () => {
    const [first, second] = habits('brakes', [flown('C1', 100, '2026-11-24'), flown('Urze', 100, '2026-05-28')], ON);
    expect(first).toMatchObject({ value: 'toe' });
    expect(first?.weight).toBeCloseTo(1 / (1 + Math.exp(-1)), 9);
    expect((first?.weight ?? 0) + (second?.weight ?? 0)).toBeCloseTo(1, 9);
    expect(habits('brakes', [], ON)).toEqual([]);
    expect(wholeDaysSince('2026-11-24T23:00:00Z', '2026-11-25')).toBe(1);
  });
  it('many recent hours on the new type make the old reflex small', () => {
    const score = (urzeHours: number) =>
      rankDifferences({
        flown: [flown('C1'), flown('Urze', urzeHours)],
        to: type('Carvalho').attributes,
        typeAttributes: [],
        goals: ['tailwheel'],
        rules,
        onDate: ON,
      }).find((r) => r.key === 'tail-inertia')?.score ?? 0;
    expect(score(300)).toBeLessThan(score(10));
  });
  it('does not depend on the order in which types were entered', () => {
    fc.assert(
      fc.property(
        fc.shuffledSubarray(
          types.map((t) => t.name),
          { minLength: 2, maxLength: 5 },
        ),
        (names) => {
          const one = rank(names, 'Carvalho', 'tailwheel').map((r) => [r.key, r.score.toFixed(9)]);
          expect(rank([...names].reverse(), 'Carvalho', 'tailwheel').map((r) => [r.key, r.score.toFixed(9)])).toEqual(
            one,
          );
        },
      ),
    );
  });
  it('says the numbers behind a row', () => {
    const row = rank(['C1'], 'Carvalho', 'tailwheel')[0];
    expect(row?.numbers).toBe('100 % of the habit: Alvor C1 300 h, 14 days ago; severity 9 of 10, exposure 100 %');
    expect(rank(['C1'], 'Carvalho', 'tailwheel').length).toBe(ATTRIBUTE_KEYS.length);
  });
});

describe('one airframe and one checkout', () => {
  it('a modification counts, and is named', () => {
    const modified = airframes.find((a) => a.registration === 'ZP-CGE');
    if (!modified) throw new Error('no airframe');
    const plain = type('C4G');
    const rows = rankDifferences({
      flown: [flown('C4G')],
      to: effectiveSheet(plain, modified).attributes,
      typeAttributes: plain.attributes,
      goals: ['new-type'],
      rules,
      onDate: ON,
    }).filter((r) => r.action !== 'same');
    expect(rows.map((r) => [r.key, r.airframe])).toEqual([
      ['ignition', 'Supplement 3'],
      ['lever-order', 'Supplement 2'],
      ['protection', 'Supplement 5'],
    ]);
  });
  it('the school chosen on the stall moves the row; a handbook locks it', () => {
    const carvalho = type('Carvalho').attributes;
    const value = (list: typeof carvalho) => list.find((a) => a.key === 'wing-drop')?.value;
    expect(value(attributesBySchool(carvalho, { 'wing-drop': 'together' }))).toBe(ATTRIBUTES['wing-drop'].values[1]);
    expect(
      value(
        attributesBySchool(
          carvalho.map((a) => ({ ...a, source: 'handbook' as const })),
          { 'wing-drop': 'together' },
        ),
      ),
    ).toBe(ATTRIBUTES['wing-drop'].values[0]);
    expect(attributesBySchool(carvalho, {})).toEqual(carvalho);
  });
  it('counts what was flown here: 70 landings in a tailwheel are not all nosewheel', () => {
    // 54 min block to block; seven circuits without a clock are six minutes each, and only about.
    expect(recordedHours(54, 7, 6)).toEqual({ hours: 0.9, about: false });
    expect(recordedHours(null, 70, 6)).toEqual({ hours: 7, about: true });
    // Today: 7 h of tailwheel against 21 h of nosewheel, 180 days old: 7 to 21/e.
    const now = habits(
      'tail-inertia',
      [{ ...flown('C1', 21, '2026-05-28') }, { ...flown('Urze', recordedHours(null, 70, 6).hours, ON), about: true }],
      ON,
    );
    expect(now.map((h) => h.value)).toEqual(['nosewheel', 'light']);
    expect(now[1]?.weight).toBeCloseTo(7 / (7 + 21 / Math.E), 4);
    const numbers = rankDifferences({
      flown: [{ ...flown('Urze', 7, ON), about: true }],
      to: type('Carvalho').attributes,
      typeAttributes: type('Carvalho').attributes,
      goals: ['tailwheel'],
      rules,
      onDate: ON,
    }).find((r) => r.key === 'tail-inertia')?.numbers;
    expect(numbers).toContain('Serrana Urze about 7.0 h, today');
  });
  it('knows other schools’ types by their kind', () => {
    expect(
      [
        { engines: 1, tailwheel: true, water: false },
        { engines: 2, tailwheel: false, water: true },
        { engines: 1, tailwheel: false, water: true },
        { engines: 1, tailwheel: false, water: false },
      ].map(proposedKind),
    ).toEqual(['light-tailwheel', 'light-twin', 'floatplane', 'light-nosewheel']);
    for (const k of KIND_KEYS) {
      expect(kindOf(kindCode(k))).toBe(k);
      for (const a of kindAttributes(k)) expect(ATTRIBUTES[a.key].values, `${k} ${a.key}`).toContain(a.value);
    }
    expect(kindOf('alvor-c1')).toBeNull();
    // A pilot of light tailwheels has the tail to hold already; one of nosewheels has it to learn.
    const to = type('Urze').attributes;
    const first = (kind: Kind) =>
      rankDifferences({
        flown: [{ typeName: KINDS[kind].name, attributes: kindAttributes(kind), hours: 100, lastFlown: ON }],
        to,
        typeAttributes: to,
        goals: ['tailwheel'],
        rules,
        onDate: ON,
      });
    expect(first('light-tailwheel').find((r) => r.key === 'tail-inertia')?.action).toBe('same');
    expect(first('light-nosewheel').find((r) => r.key === 'tail-inertia')).toMatchObject({
      action: 'drop',
      opposite: true,
    });
    // What a kind does not say is no row at all.
    expect(first('transport').some((r) => r.key === 'control-travel')).toBe(false);
  });
  it('gives the brief its first rows, and groups them in the order of the flight', () => {
    const rows = rank(['C1'], 'Carvalho', 'tailwheel');
    expect(habitCues(rows, 3).map((c) => c.key)).toEqual(['ground-stability', 'tail-inertia', 'rudder-need']);
    expect(byPhase(rows.filter((r) => r.action !== 'same')).map((g) => g.phase)).toEqual([
      'ground',
      'take-off',
      'airwork',
      'circuit',
      'approach',
      'landing',
    ]);
  });
});

describe('the rules as data', () => {
  it('have one row for each attribute, and name only values that exist', () => {
    expect(rules.attributes.map((a) => a.key).sort()).toEqual([...ATTRIBUTE_KEYS].sort());
    const wrong = structuredClone(rules);
    wrong.attributes[0]?.pairs.push({
      from: 'wobbles',
      to: '*',
      severity: 3,
      action: 'add',
      opposite: false,
      cue: 'x',
    });
    expect(DifferenceRules.safeParse(wrong).error?.issues[0]?.message).toContain('"wobbles" is not a value');
  });
  it('an opposite pair is always something to drop, and weighs at least 7 where it can end the flight on the ground', () => {
    for (const a of rules.attributes)
      for (const p of a.pairs) if (p.opposite) expect(p.action, `${a.key} ${p.from}`).toBe('drop');
  });
});
