/**
 * The catalogues read: every sentence is made once of plausible parameters and held against the rules of words that a
 * test can hold. How each reads is seen in the lists below; a code without an example does not compile.
 */
import { describe, expect, it } from 'vitest';
import {
  CRITERION_WORDS,
  DETAIL_WORDS,
  HAVE_WORDS,
  ITEM_RECORD_WORDS,
  LANDING_WORDS,
  LEFT_OUT_WORDS,
  MISSING_WORDS,
  SIGNING_WORDS,
  TALLY_WORDS,
  asksWords,
  FORECAST_WORDS,
} from '@/core/assess';
import { BLOCK_TITLES, BLOCK_WHYS, CONTENT_WORDS, LATER_WORDS, UNMEETABLE_WORDS, WIND_WORDS } from '@/core/plan';
import { ROW_WORDS } from '@/core/logbook';
import { ROSTER_WORDS } from '@/core/roster';
import { GAP_WORDS, PASTE_WORDS, SHEET_WORDS } from '@/core/sheet';
import { APART_WORDS, ODD_WORDS, UNREADABLE_WORDS } from '@/core/trace';
import { REPORT_WORDS } from '@/core/wind';
import { LEDGER_PROBLEM_WORDS, ledgerProblemWords } from '@/core/ledger';
import { FIT_WORDS, LIMITATION_WORDS } from '@/core/schedule';
import { type Args, type Catalogue, type Coded, coder, sentence } from '@/domain/coded';
import { ACCOUNT_WORDS } from '@/server/account/sentences';
import { CHECKOUT_WORDS } from '@/server/checkout/sentences';
import { DEBRIEF_WORDS } from '@/server/debrief/sentences';
import { DOOR_WORDS } from '@/server/door/sentences';
import { FLY_WORDS } from '@/server/fly/sentences';
import { HANGAR_WORDS } from '@/server/hangar/sentences';
import { LEDGER_WORDS } from '@/server/ledger/sentences';
import { PEOPLE_WORDS } from '@/server/people/sentences';
import { STATE_WORDS, stateWarning, stateWords } from '@/server/running/state-words';
import { WEEK_WORDS } from '@/server/board/week-words';
import { NEXT_WORDS } from '@/server/checkout/next-words';
import { READY_WORDS } from '@/server/schedule/ready-words';
import { RULES_WORDS } from '@/server/rules/sentences';
import { SCHEDULE_WORDS } from '@/server/schedule/sentences';
import { TRACES_WORDS } from '@/server/traces/sentences';

/** Words that the rules of words replace. */
const REPLACED =
  /\b(the house|house rules|the book|fence|round-out|Keep it|strike|say otherwise|kt across|the field|as seen|whose landing|lies ahead of)\b/i;
/** Every code of a catalogue with what its sentence is made of. */
type Examples<C extends Catalogue> = { [K in keyof C & string]: Args<C, K>[0] };
function read<C extends Catalogue>(catalogue: C, examples: Examples<C>): string[] {
  return (Object.keys(catalogue) as (keyof C & string)[]).map((code) =>
    sentence(catalogue, { code, params: examples[code] } as Coded<C>),
  );
}
function holds(lines: readonly string[]): void {
  for (const line of lines) {
    expect(line).not.toMatch(/undefined|NaN|null|\[object|\{|\}| {2}|!|\.\.| ,| \./);
    expect(line, line).not.toMatch(REPLACED);
    expect(line.length).toBeGreaterThan(3);
  }
}
const none = undefined;
const left = { code: 'criteria', params: { ids: ['aileron'] } } as const;
const asked = {
  attitude: 'three-point',
  fullStop: true,
  prompted: false,
  accuracy: true,
  surface: 'land',
  windKt: 6,
  withinDays: 90,
} as const;
const missing = [{ code: 'not-seen' }] as const;
const item = { id: 'F4', title: 'Three-point landings' };
const eye = { row: { eye: { kind: 'words' as const, within: ['none'], edge: ['slight'] } }, intended: 'three-point' };

describe('core', () => {
  it('evidence', () => {
    const lines = read(MISSING_WORDS, {
      'first-items': { ids: ['F1', 'F2'] },
      'further-training': { on: '2026-10-06', by: 'Bento' },
      'carried-lapsed': { on: '2026-08-01', lapsesOn: '2026-09-30' },
      'part-lapsed': { on: '2026-08-01', lapsesOn: '2026-11-23' },
      'past-a-stop': { count: 2 },
      'left-out': { whys: [left, left], judged: true },
      'see-more': { count: 1, share: 0.5 },
      'clean-tap-spare': { count: 2 },
      'more-in-a-row': { count: 3, attitude: 'three-point', surface: 'water', withinDays: null },
      'more-flights': { atLeast: 2 },
      'more-days': { atLeast: 2 },
      'first-of-flight': none,
      'one-in-wind': { atLeastKt: 6 },
      'go-around': { lesson: 2, number: 4, fault: 'told' },
      'more-landings': { count: 2, asked },
      'more-decided': { count: 1, withinDays: null },
      'more-flown-well': { count: 2, withinDays: 90 },
      'go-arounds-from': { from: ['flare', 'bounce'] },
      'not-seen': none,
      'more-times': { count: 1, maxIntervention: 1, withinDays: 90 },
      variants: { variants: ['clean', 'landing'] },
      'last-outside': none,
      'more-hours': { minutes: 65, of: 'flights', withinDays: null },
      'more-briefs': { count: 1, withinDays: null },
      'lab-pages': { pages: ['ground', 'touch'], withinDays: null },
      'more-gear-checks': { count: 2, surface: 'water', after: 1 },
    });
    holds(lines);
    expect(lines).toEqual([
      'needs F1 and F2 first',
      'further training was entered on 6 Oct 2026 by Bento: to be shown again',
      'what was shown in another checkout on 1 Aug 2026 lapsed on 30 Sep 2026',
      'the part sign-off of 1 Aug 2026 lapsed on 23 Nov 2026',
      '2 flown past a stop do not count',
      '2 left out: into-wind aileron not seen',
      '1 more with drift, crab, swing and bounce seen: at most 50 in 100 may be based on the clean tap',
      '2 more are based on the clean tap: with drift, crab, swing and bounce seen they count',
      '3 more unassisted three-point landings in a row on water',
      'spread over at least 2 flights',
      'on at least 2 days',
      'one of them the first landing of a flight',
      'one of them in a crosswind of 6 kt or more',
      'a go-around decided in time and flown well, after lesson 2, number 4 (told to go for safety)',
      '2 more unassisted three-point full-stop landings on land, on target, crosswind 6 kt or more, within 90 days',
      '1 more decided by the pilot, before or at the trigger',
      '2 more flown well, unassisted, within 90 days',
      'still to fly: from the flare and bounce',
      'not seen yet',
      '1 more time within the standard, prompted at most, within 90 days',
      'still to see: clean and landing configuration',
      'outside the standard the last time: to be seen again',
      '1 h 05 more of dual flight',
      '1 more brief acknowledged by the pilot',
      'in a brief acknowledged by the pilot, from the lab: Straight or swerving and The touch',
      '2 more checks agreed on final on water, after the 1 landing without',
    ]);
    const had = read(HAVE_WORDS, {
      nothing: none,
      'nothing-recent': { withinDays: 90 },
      waived: none,
      carried: { from: 'ZP-URV', by: 'Helena', on: '2026-11-01', lapsesOn: '2026-12-31' },
      part: { by: 'Bento', on: '2026-08-01', lapsesOn: '2026-11-23' },
      'credited-held': { kind: 'tailwheel', text: 'Shown before.' },
      'credited-hours': { hours: 62, needed: 50, text: 'Shown before.' },
      run: { count: 5, attitude: 'three-point', asserted: 2 },
      landings: { count: 3, asked, asserted: 0 },
      'go-arounds': { sound: 1, good: 3 },
      seen: { count: 3, within: 2 },
      hours: { minutes: 125, of: 'flights' },
      briefs: { count: 2, pages: ['slip'] },
      'gear-checks': { count: 6, surface: 'water' },
    });
    holds([...had, asksWords({ kind: 'briefs', needed: 2, pages: [], withinDays: null })]);
    expect(had[3]).toBe('shown in ZP-URV with Helena, last on 1 Nov 2026; carried until 31 Dec 2026');
    expect(had[4]).toBe('part sign-off by Bento on 1 Aug 2026, valid until 23 Nov 2026');
    expect(had[7]).toBe('the last 5 three-point landings unassisted, 2 of 5 based on the clean tap');
    holds(read(LEFT_OUT_WORDS, { criteria: { ids: ['stick'] }, details: { ids: ['look-out'] }, 'clean-tap': none }));
    const beside = { why: left, judged: true };
    const shown = read(ITEM_RECORD_WORDS, {
      landing: { intended: 'three-point', kind: 'full-stop', landingClass: 'own', crosswindKt: -8, beside },
      'go-around': { decision: 'sound', execution: 'good', crosswindKt: null, beside: null },
      seen: { variant: 'landing', verdict: 'edge', intervention: 1, minutes: 40, note: 'late', beside: 'clean-tap' },
      clock: { minutes: 75 },
      brief: { acknowledged: false },
      'gear-check': { agreed: true, onFinal: true },
    });
    holds(shown);
    expect(shown[2]).toBe('landing configuration: edge, prompted, 0 h 40: late, based in part on the clean tap');
  });
  it('judging', () => {
    const why = read(CRITERION_WORDS, {
      'not-seen': none,
      speed: { from: 'dial', off: 12.08, low: 5.75, high: 11.5, unit: 'mph' },
      measured: { value: -2.6, low: -2, high: 2, unit: 'm' },
      asserted: eye,
      pushed: { count: 1 },
      bounced: { ...eye, count: 1, handling: 'held' },
      seen: { ...eye, eye: { band: 'slight', side: 'left' } },
      'second-contact': none,
      'tail-low': none,
      'speed-stood': { between: { gates: ['Base', 'Final'], from: 62, to: 62 }, unit: 'mph' },
      'serious-seen': { id: 'off-surface' },
      short: { beforeM: 3 },
      'off-surface': { fromLineM: 9.4, edgeM: 9 },
      hard: { sinkFpm: 640, inspectFpm: 600 },
    });
    holds(why);
    expect(why[1]).toBe('Read +13 mph from the target; the standard allows -5 to +11 mph.');
    expect(why[9]).toBe(
      'The speed stopped falling between base and final (62 to 62 mph): on a falling schedule that is the fault.',
    );
    holds(
      read(LANDING_WORDS, {
        'low-pass': none,
        'go-around': {
          decision: 'sound',
          execution: 'outside',
          word: 'at',
          announced: null,
          from: 'flare',
          why: null,
          outside: ['speed'],
        },
        contradicts: { level: 'own', helpedOn: ['rudder'] },
        demonstration: none,
        control: { outside: ['swing'] },
        trigger: none,
        'took-over': none,
        assisted: none,
        'nobody-named': none,
        'not-seen': { missing: ['drift'] },
        prompted: none,
        'off-target': { outside: ['along'] },
        own: none,
        overruled: { by: 'Helena', to: 'assisted', reason: 'it was the gust', computed: { code: 'own' } },
      }),
    );
    holds(
      read(DETAIL_WORDS, {
        'no-look-out': none,
        'secondary-stall': none,
        'rolled-before-unloading': none,
        'simulated-not-said': none,
        'past-first-cue': none,
        missed: { steps: ['mixture'] },
        'out-of-order': { steps: ['mixture'] },
        'not-said': { steps: ['my controls'] },
        'feet-stayed-on': none,
        'model-says': { model: 'ahead' },
      }),
    );
  });
  it('signing', () => {
    const by = { on: '2026-10-06', by: 'Bento', where: 'flight' as const };
    holds(
      read(SIGNING_WORDS, {
        own: none,
        'not-authorised': none,
        certificate: { until: '2026-11-23' },
        lacks: { kinds: ['tailwheel'] },
        rating: { text: 'a flight instructor rating', citation: '14 CFR 61.195(b)' },
        'model-hours': { have: 4, needed: 5, inCommand: true, within: 'model', citation: '14 CFR 61.195(f)' },
        'not-recent': { title: 'Recency', restore: 'three landings', citation: 'School rules' },
        'not-flown': { days: null, withinDays: 30 },
        refused: { ...item, ...by },
        'not-seen': { ...item, missing },
        legal: { ...item, missing, citation: '14 CFR 61.31(i)' },
        override: item,
        item: { ...item, missing },
        limit: { what: 'Vne passed', flownOn: '2026-11-21' },
        trigger: { lesson: 2, number: 3 },
        stop: { name: 'Lesson 1, landing 2', words: 'landed on water with no check of the wheels' },
        prerequisite: { text: '70 h in command', known: false },
        class: { classes: ['multi-engine-land'] },
        sheet: { facts: ['the power of an engine'] },
      }),
    );
  });
  it('the plan and the schedule', () => {
    const wind = { code: 'step', params: { forecastKt: 7, provenKt: 5, stepKt: 8 } } as const;
    holds(
      read(BLOCK_TITLES, {
        item: { ...item, circuits: 3 },
        finding: { title: 'Feet first' },
        lab: { page: 'ground' },
        'warm-up': { circuits: 2, attitude: 'three-point' },
        'wind-step': { forecastKt: 7 },
        'end-on': { attitude: 'three-point' },
        'end-quietly': none,
      }),
    );
    const numbers = [{ label: 'seen', text: '3 of 8' }];
    holds(
      read(BLOCK_WHYS, {
        open: { missing },
        'new-attitude': { owned: ['three-point'], missing },
        'first-landings': none,
        'days-away': { days: 40 },
        'warm-up-on-owned': none,
        'warm-up-on-flown': none,
        finding: { title: 'Late flare', numbers },
        'lab-finding': { title: 'Late flare', set: null },
        'wind-step': { provenKt: 5, stepKt: 8, wind },
        praise: { title: 'Straight until stopped', number: '8 of 8' },
        'end-on-owned': { attitude: 'three-point' },
        'end-well': none,
      }),
    );
    holds(
      read(LATER_WORDS, {
        'no-ground-time': none,
        'does-not-fit': { minutes: 18, leftMin: 10, limitedBy: 'booking' },
        'no-room': { limitedBy: 'fuel' },
        'later-lesson': { lesson: 3 },
        'first-items': { ids: ['F2'] },
        'one-new-thing': { title: { code: 'item', params: { ...item, circuits: 0 } } },
        rebuilding: none,
        'too-little-wind': none,
        'not-today': none,
        'go-arounds-once': none,
        'wind-asked': { askedKt: 6, forecastKt: 2 },
        'no-room-before': none,
      }),
    );
    const at = { crosswindKt: 9.2, runwayEnd: '22' };
    holds([
      ...read(WIND_WORDS, { 'no-forecast': none, above: wind.params, step: wind.params, proven: wind.params }),
      ...read(FIT_WORDS, {
        'no-forecast': none,
        'over-limit': { ...at, limitKt: 9, limitOf: 'the school' },
        'not-proven': at,
        wanted: { ...at, wantsKt: 8 },
        light: { ...at, wantsKt: 12 },
        fits: at,
      }),
      ...read(LIMITATION_WORDS, {
        solo: { until: null },
        'no-passengers': { until: { untilHours: 2.1, flownHours: 2 } },
        surface: { surface: 'asphalt', until: null },
        crosswind: { limitKt: 8, forecastKt: 9, until: null },
      }),
    ]);
    expect(
      sentence(LIMITATION_WORDS, { code: 'no-passengers', params: { until: { untilHours: 2.1, flownHours: 2 } } }),
    ).toBe('signed without passengers until 2.1 h; 2.0 h are flown: remove them');
  });
  it('content', () => {
    holds([
      ...read(UNMEETABLE_WORDS, {
        'tailwheel-attitude': { attitude: 'three-point' },
        'wheel-landings': none,
        water: none,
        land: none,
        'gear-checks': none,
        crosswind: { askedKt: 40, mostKt: 12 },
        'second-engine': none,
        'power-table': none,
        'tailwheel-seen': none,
      }),
      ...read(CONTENT_WORDS, {
        'no-text': none,
        'no-citation': none,
        'no-prerequisite': { id: 'F9' },
        circle: none,
        'legal-and-free': none,
        'no-safety': none,
        'goal-missing': { goal: 'sea' },
        'no-goal': { kind: 'tailwheel' },
        'no-programme': none,
        'nothing-to-sign': none,
        'unknown-fact': { fact: 'power' },
        'cannot-be-met': { why: { code: 'water' } },
        'no-such-fact': { fact: 'bounce', over: 'arrivals' },
      }),
    ]);
  });
  it('the forecast', () => {
    holds(
      read(FORECAST_WORDS, {
        'too-few': { landings: 1, least: 6 },
        'run-there': none,
        'too-wide': { in100: 24, within: 60 },
      }),
    );
  });
  it('what a sheet lacks, and what was pasted or read in', () => {
    holds(Object.values(GAP_WORDS).map((say) => say()));
    holds(
      read(PASTE_WORDS, {
        'paste-empty': none,
        'paste-columns': { line: 2, have: 1, columns: 'mass, air' },
        'paste-number': { line: 2, column: 'mass', text: 'x' },
        'paste-comma': { line: 2, column: 'mass', text: '1,250' },
        'paste-missing': { line: 2, column: 'mass' },
        'paste-many': { most: 200 },
      }),
    );
    holds(
      read(ROSTER_WORDS, {
        'roster-empty': none,
        'roster-column': { column: 'the mass' },
        'roster-many': { most: 200 },
        'roster-ragged': { line: 3 },
        'roster-number': { line: 3, column: 'the mass', text: 'x' },
        'roster-role': { line: 3, text: 'boss' },
        'roster-email-twice': { line: 3, email: 'a@school.example' },
      }),
    );
  });
  it('the check of a type sheet', () => {
    const at = { value: 60, unit: 'kt' };
    const gate = 'Final';
    holds(
      read(SHEET_WORDS, {
        flapNoLimit: { gate, flapDeg: 30 },
        flapAboveLimit: { gate, at, limit: at },
        gearAboveLimit: { gate, at, limit: at },
        targetAboveLimit: { gate, at, limit: at },
        notFalling: { gate, at, from: at },
        slope: { gate, slopeDeg: 8.2 },
        stallMargin: { gate, ratio: 1.1, least: 1.2 },
        stallMarginBank: { gate, ratio: 1.1, least: 1.2 },
        'dynamics-range': { name: 'rudder travel', at: 90, low: 10, high: 40 },
        'dynamics-inertia': { axis: 'yaw', radiusM: 0.4, lowM: 1.1, highM: 2.2 },
        'dynamics-fin-arm': { armM: 9, lengthM: 6.8 },
        'firmness-order': none,
        'low-part-out': { part: 'wing tip', outM: 9, halfSpan: 5.4 },
        'propeller-foot': { turns: 'clockwise', foot: 'left' },
        'mains-side': { tail: true, aheadM: -0.3 },
        'tyre-stiffness': { name: 'main tyres', at: 300, low: 8000, high: 90000 },
        'dial-not-rising': { ias: 60, below: 55 },
        'stall-order': { flapDeg: 30, lessDeg: 10 },
        'stall-missing': { flapDeg: 30 },
        'stall-lift': { flapDeg: 0, lift: 2.4, low: 1, high: 2 },
        'speed-order': { name: 'Vx', at, above: 'Vy', limit: at },
        'va-high': { va: at, most: at },
        'va-low': { va: at, most: at },
        'speed-near-stall': { name: 'Vx', at },
        'vfe-order': { flapDeg: 30, lessDeg: 10 },
        'vfe-low': { flapDeg: 30 },
        'vfe-high': { flapDeg: 30, limit: at },
        'vfe-missing': { flapDeg: 30 },
        'limit-not-least': { source: 'handbook', value: 100, other: 'placard', less: 95 },
        'gear-speeds-missing': none,
        'gear-speeds-fixed': none,
        'gear-speed-order': none,
        'gate-gear-surface': { gate, gear: 'down', surface: 'water', wanted: 'up' },
        'surface-missing': none,
        'gate-gear': { gate, gear: 'down', retractable: false },
        'twin-missing': { speeds: true },
        'vmca-vsse': none,
        'vsse-vyse': none,
        'gate-below-asymmetric': { gate, at: 80, floor: 'Vsse', floorAt: 85 },
        'level-picture': { said: 'on the horizon', measured: 'above the horizon', offDeg: 4, above: true },
        'gate-distance': { gate, atM: 500, before: 'Base', beforeM: 400 },
        'cannot-slow': { gate, fromKt: 90, toKt: 60, neededMs2: 0.9, availableMs2: 0.5 },
        'threshold-height': { gate, heightFt: 90, meetsM: 500, slopeDeg: 3, aimM: 60, overFt: 10 },
        'touchdown-before-aim': { touchM: 50, aimM: 60 },
        'air-distance': { airM: 150, slopeDeg: 3, straightM: 290 },
        'touchdown-flare': { flownM: 300, aimM: 60, flareM: 240, touchM: 120 },
        'polar-cd0': { cd0: 0.1 },
        'polar-span': { span: 1.2 },
        'flap-drag-missing': { flapDeg: 30 },
        'mass-order': none,
        'ref-mass': none,
        'envelope-top': { topKg: 700, mostKg: 750 },
        'usual-load-outside': { massKg: 700, armM: 0.4 },
        'distance-grid': { table: 'takeoff' },
        'distance-order': none,
        'flap-table-step': { flapDeg: 15 },
        'depends-on-unknown': { consumer: 'Radio', on: 'Main bus' },
        'attribute-value': { attribute: 'gear', value: 'x', values: ['fixed'] },
        'attribute-twice': { attribute: 'gear' },
        'attribute-disagrees': { of: 'foot' },
      }),
    );
  });
  it('a chief’s week', () => {
    const said = { what: 'F11', reason: 'shown in the other school' };
    const lines = read(WEEK_WORDS, {
      'override-asked': said,
      'override-approved': said,
      'override-declined': said,
      'override-withdrawn': { what: 'F11', reason: '' },
      'not-yet': { what: 'F4, F5', reason: '' },
      overruled: { what: 'class', reason: 'seen from the other seat' },
      'limit-overridden': said,
      'item-waived': said,
      stop: { words: 'landed with no check of the wheels', explained: null },
      exceeded: { limit: 'Vne', measured: { limit: 122, peak: 128.94, unit: 'mph' }, released: false },
    });
    holds(lines);
    expect(lines[9]).toBe('Vne exceeded: 128.9 mph, limit 122 mph; not released');
    expect(lines[5]).toBe('Verdict of a landing overruled: seen from the other seat');
  });
  it('what is next, and what is ready', () => {
    const lesson = { lesson: 3 };
    holds(
      read(NEXT_WORDS, {
        'enter-result': none,
        signed: none,
        sign: none,
        fly: lesson,
        acknowledge: lesson,
        debrief: lesson,
        brief: lesson,
      }),
    );
    holds(
      read(READY_WORDS, {
        'brief-missing': none,
        'brief-old': { ...lesson, days: 12 },
        'brief-read': lesson,
        'brief-unread': lesson,
        'instructor-recent': { name: 'Helena', until: '2026-12-24' },
        'instructor-not': {
          name: 'Helena',
          restore: ['3 landings'],
          lacks: ['the twin class'],
          certificateEnded: true,
        },
        'pilot-dates-hold': none,
        'pilot-dates-ended': { what: ['the medical'], on: '2026-11-01' },
        'pilot-dates-missing': { what: ['the review'] },
        'airframe-in-service': { registration: 'ZP-ABC' },
        'airframe-out': { registration: 'ZP-ABC', why: ['a flap limit passed'] },
        wind: { said: { code: 'no-forecast' } },
      }),
    );
  });
  it('what is typed, pasted and read in', () => {
    const group = { group: '26O11KT' };
    holds(
      [
        ...read(REPORT_WORDS, {
          nothing: none,
          station: group,
          time: group,
          nil: none,
          'second-wind': group,
          arc: group,
          altimeter: group,
          'second-altimeter': group,
          'second-temperature': group,
          unread: group,
          'no-wind': none,
          'wind-not-measured': group,
          calm: { ...group, unit: 'KT' },
          gust: group,
          direction: { ...group, deg: 370 },
          tens: { ...group, dir: '265' },
        }),
        ...read(ROW_WORDS, {
          ragged: { fields: 4, header: 5 },
          'no-date': none,
          'not-a-date': { written: 'soon' },
          future: { date: '2027-01-01' },
          'no-type': none,
          'type-open': { written: 'Tern' },
          'not-a-time': { written: ['26:00'] },
          'not-a-count': { written: 'many', of: 'landings' },
          'more-stops': { stops: 2, landings: 1 },
          'nothing-flown': none,
        }).map((end) => `Line 3: ${end}.`),
        ...read(TALLY_WORDS, {
          'nothing-above': { column: 'kind' },
          'no-kind': { written: 'X' },
          columns: { written: 9, of: 10 },
          'no-code': { written: '7', column: 'whose', codes: ['0', '1'] },
          'low-pass-touched': none,
          'low-pass-bounced': none,
        }),
        ...read(UNREADABLE_WORDS, {
          'too-long': { millions: 120 },
          'empty-file': none,
          'document-types': none,
          'gpx-broken': { detail: 'a tag is not closed' },
          'not-gpx': none,
          'no-track-points': none,
          'fixes-unreadable': none,
          'no-fixes': none,
          'no-header': none,
          'position-columns': { missing: ['lat', 'lon'], line: 3 },
          'time-column': { line: 3 },
          'kml-broken': { detail: 'a tag is not closed' },
          'kml-no-times': none,
          'header-only': none,
          'no-position-columns': none,
          'no-positions': none,
          'few-rows': none,
        }),
        ...read(APART_WORDS, { 'no-overlap': none, 'not-one-flight': none, 'not-plain': none }),
        ...read(ODD_WORDS, {
          'record-broken': none,
          'date-missing': none,
          midnight: none,
          'zone-not-said': none,
          'unit-assumed': { channel: 'ias', column: 'speed', unit: 'knots' },
          'unit-shown': { channel: 'ias', column: 'speed', unit: 'knots' },
          'heading-assumed-magnetic': none,
          'columns-unknown': { columns: ['a', 'b'] },
          'row-short': none,
          'position-impossible': none,
          'time-impossible': none,
          'time-missing': none,
          'time-repeated': none,
          'time-back': none,
          gap: { seconds: 3 },
          'ground-speed-derived': none,
          'height-missing': none,
          'height-not-calibrated': none,
          'flown-elsewhere': { at: 'Moinho Velho', briefed: 'Pedra Alva' },
          'far-from-field': none,
        }),
      ].map((line) => line.replace(/"[^"]*"/g, 'X1')),
    );
  });
  it('the ledger', () => {
    holds(
      read(LEDGER_PROBLEM_WORDS, {
        gap: { after: 3 },
        chain: none,
        'key-unknown': none,
        'not-json': none,
        'not-an-entry': none,
        'not-canonical': none,
        column: { name: 'signerId' },
        hash: none,
        'signature-form': none,
        signature: none,
        'dated-before': { signedAt: '2026-11-23', seq: 3, latest: '2026-11-24' },
        'head-missing': none,
        'head-key-unknown': none,
        'head-changed': none,
        missing: { at: '2026-11-24', count: 4 },
        'head-differs': none,
      }),
    );
    expect(ledgerProblemWords({ seq: 4, id: null, code: 'hash' })).toBe(
      'Entry 4 has a hash that does not match its text.',
    );
  });
  it('a code carries its parameters, and only where its sentence has some', () => {
    const code = coder(MISSING_WORDS);
    expect(code('not-seen')).toEqual({ code: 'not-seen' });
    expect(code('more-days', { atLeast: 2 })).toEqual({ code: 'more-days', params: { atLeast: 2 } });
  });
});

/** Any text and any number: rooms of the server are read for the form of their sentences, the words are in their files. */
const anything = new Proxy({}, { get: (_, key) => (key === 'map' || typeof key === 'symbol' ? undefined : 'X1') });
/** Made of more than a text or a number: each is read by itself. */
const STRUCTURED = [
  'brief-saved-meanwhile',
  'roles-changed',
  'limitation',
  'outside-windows',
  'model-hours',
  'variant-lapsed',
] as const;
describe('the server', () => {
  it('what the chief is told of disk and backups', () => {
    holds(
      read(STATE_WORDS, {
        'disk-low': { freeBytes: 812_400_000, of: 'data' },
        'backup-none': none,
        'backup-folder': { folder: '/mnt/x' },
        'backup-yet': none,
        'backup-failed': { on: '24 Nov 2026', why: 'The disk is full.' },
        'backup-old': { on: '24 Nov 2026' },
        'trial-failed': { on: '1 Dec 2026', why: 'Nothing was restored.' },
      }),
    );
    // Nobody has more room than is said.
    expect(stateWords(stateWarning('disk-low', { freeBytes: 1_999_999_999, of: 'backups' }))).toContain('1.9\u00a0GB');
  });
  it('what is made of lists, days and other codes', () => {
    const hours = { have: 12.38, needed: 15, inCommand: true, within: 'class' as const, citation: 'FCL.915' };
    const lines = [
      sentence(SCHEDULE_WORDS, { code: 'outside-windows', params: { name: 'Ada', windows: [], date: 'Thu 3 Dec' } }),
      sentence(SCHEDULE_WORDS, {
        code: 'outside-windows',
        params: { name: 'Ada', windows: ['08:30 to 12:30', '13:30 to 18:00'], date: 'Thu 3 Dec' },
      }),
      sentence(SCHEDULE_WORDS, { code: 'model-hours', params: { ...hours, name: 'Ada', type: 'Planalto P2' } }),
      sentence(SCHEDULE_WORDS, {
        code: 'variant-lapsed',
        params: { kind: 'Variant', through: '2026-11-01', months: 24, citation: 'FCL.710' },
      }),
      sentence(SCHEDULE_WORDS, {
        code: 'limitation',
        params: { seq: 6, limitation: { code: 'solo', params: { until: null } } },
      }),
      sentence(CHECKOUT_WORDS, { code: 'model-hours', params: hours }),
      sentence(CHECKOUT_WORDS, {
        code: 'brief-saved-meanwhile',
        params: { by: 'Ada', lesson: 2, flownOn: '2026-11-24', runwayEnd: '22', fuelL: 60 },
      }),
      sentence(PEOPLE_WORDS, {
        code: 'roles-changed',
        params: { roles: ['instructor', 'chief'], authorised: [], ownCrosswindKt: null },
      }),
    ];
    holds(lines);
    expect(lines.slice(0, 4)).toEqual([
      'Ada can be booked at no time on Thu 3 Dec.',
      'Ada can be booked 08:30 to 12:30 and 13:30 to 18:00 on Thu 3 Dec.',
      'Ada has 12.3 h in command in the class of Planalto P2; 15 h are required to teach it (FCL.915).',
      'Variant has lapsed on 1 Nov 2026: not flown for 24 months (FCL.710). Book a lesson.',
    ]);
  });
  it.each(
    Object.entries({
      ACCOUNT_WORDS,
      CHECKOUT_WORDS,
      DEBRIEF_WORDS,
      DOOR_WORDS,
      FLY_WORDS,
      HANGAR_WORDS,
      LEDGER_WORDS,
      PEOPLE_WORDS,
      RULES_WORDS,
      SCHEDULE_WORDS,
      TRACES_WORDS,
    }),
  )('%s', (_, words) => {
    const structured: ReadonlySet<string> = new Set([...STRUCTURED, 'not-a-sheet', 'not-events']);
    const lines = Object.entries(words as Record<string, (p: unknown) => string>)
      .filter(([code]) => !structured.has(code))
      .map(([, say]) => say(anything));
    holds(lines);
    for (const line of lines) expect(line, 'a sentence begins with a capital or a name').toMatch(/^[A-Z]/);
    for (const line of lines) expect(line).toMatch(/[.?]$|X1\)?$/);
  });
});
