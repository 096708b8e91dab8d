import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import privateUs from '@content/standards/private-us.json';
import shortField from '@content/programmes/short-field.json';
import tailwheel from '@content/programmes/tailwheel.json';
import {
  type EvidenceRecord,
  type RecordedLanding,
  type SigningFacts,
  assessProgramme,
  judgeCaptured,
  lessonSummaries,
  recentShare,
  runRule,
  share,
  signingProblems,
  criterionWords,
} from '@/core/assess';
import { composeProgramme } from '@/core/plan';
import type { CapturedLanding } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import { type Programme, ProgrammeSource, Standard } from '@/domain/programme';

const standard = Standard.parse(privateUs);
const context = { standard, fenceTarget: 57, ktPerUnit: 0.868976, unit: 'mph' as const };
const untouched: CapturedLanding = { ...UNSEEN, kind: 'full-stop', intended: 'three-point', runwayEnd: '22' };
const none = { band: 'none' as const, side: null };
const good: CapturedLanding = {
  ...untouched,
  touched: 'three-point',
  along: 'in-the-box',
  lateral: 'line',
  drift: none,
  crab: none,
  swing: none,
  bounce: { count: 0, handling: null },
  intervention: 0,
};

describe('schools and an instructor\u2019s word', () => {
  const gates = [
    { name: 'Base', target: 62 },
    { name: 'Final', target: 58 },
    { name: 'Threshold', target: 54 },
  ];
  const bounced: CapturedLanding = { ...good, bounce: { count: 1, handling: 'held' } };
  it('any second contact is a go-around where that is taught, and one skip is allowed where it is not', () => {
    expect(judgeCaptured(bounced, { ...context, schools: { bounce: 'settle' } }).landingClass).toBe('own');
    expect(judgeCaptured(bounced, { ...context, schools: { bounce: 'go' } })).toMatchObject({
      landingClass: 'outside',
      controlOutside: ['bounce'],
    });
    expect(
      judgeCaptured(
        { ...bounced, bounce: { count: 1, handling: 'went-around' } },
        { ...context, schools: { bounce: 'go' } },
      ).landingClass,
    ).toBe('own');
  });
  it('a speed that stops falling is the fault where it should fall, and not where it should be constant', () => {
    const stood: CapturedLanding = { ...good, gateSpeeds: { Base: 62, Final: 62 }, fenceSpeed: 56 };
    expect(judgeCaptured(stood, { ...context, gates, schools: { speed: 'constant' } }).precisionOutside).toEqual([]);
    const j = judgeCaptured(stood, { ...context, gates, schools: { speed: 'reducing' } });
    expect(j).toMatchObject({ landingClass: 'own-off-target', precisionOutside: ['speed'] });
    expect(j.criteria.find((c) => c.id === 'speed')?.reasons.at(-1)).toEqual({
      code: 'speed-stood',
      params: { between: { gates: ['Base', 'Final'], from: 62, to: 62 }, unit: 'mph' },
    });
    expect(
      judgeCaptured({ ...good, notes: ['speed-did-not-fall'] }, { ...context, gates, schools: { speed: 'reducing' } })
        .precisionOutside,
    ).toEqual(['speed']);
  });
  it('tail first is what was meant where tail-low is taught', () => {
    const tail: CapturedLanding = { ...good, touched: 'tail-first' };
    expect(judgeCaptured(tail, context).criteria.find((c) => c.id === 'attitude')?.verdict).toBe('edge');
    expect(
      judgeCaptured(tail, { ...context, schools: { attitude: 'three-point' } }).criteria.find(
        (c) => c.id === 'attitude',
      ),
    ).toMatchObject({ verdict: 'within', reasons: [{ code: 'tail-low' }] });
  });
  it('an overruled criterion moves the class, the computed one stays in sight; a whole landing overruled says both', () => {
    const by = { reason: 'it was the gust', by: 'Helena', at: '2026-11-24T14:00:00.000Z' };
    const j = judgeCaptured(
      { ...good, swing: { band: 'large', side: 'left' } },
      { ...context, overruled: { swing: { to: 'edge', ...by } } },
    );
    expect(j).toMatchObject({ landingClass: 'own', controlOutside: [] });
    expect(j.criteria.find((c) => c.id === 'swing')).toMatchObject({
      verdict: 'edge',
      overruled: { computed: 'outside', by: 'Helena' },
    });
    expect(judgeCaptured(good, { ...context, overruled: { class: { to: 'assisted', ...by } } })).toMatchObject({
      landingClass: 'assisted',
      overruled: { computed: 'own' },
      reason: {
        code: 'overruled',
        params: { by: 'Helena', to: 'assisted', reason: 'it was the gust', computed: { code: 'own' } },
      },
    });
    expect(
      judgeCaptured(
        { ...good, trigger: 'met-and-continued' },
        { ...context, overruled: { swing: { to: 'within', ...by } } },
      ).landingClass,
    ).toBe('outside');
  });
});

describe('judgeCaptured', () => {
  it('assumes nothing of an untouched landing', () => {
    const j = judgeCaptured(untouched, context);
    expect(j.landingClass).toBe('not-judged');
    expect(j.criteria.every((c) => c.verdict === 'not-seen')).toBe(true);
  });
  it('own, with the reason for each verdict', () => {
    const j = judgeCaptured(good, context);
    expect(j.landingClass).toBe('own');
    expect(criterionWords(j.criteria.find((c) => c.id === 'drift')?.reasons ?? [])).toContain('Standard: none');
  });
  it('clean asserts drift, crab, swing and bounce, and never place, speed or firmness', () => {
    const j = judgeCaptured(
      {
        ...untouched,
        touched: 'three-point',
        along: 'in-the-box',
        lateral: 'line',
        intervention: 0,
        cleanTap: 'stopped',
      },
      context,
    );
    expect(j.landingClass).toBe('own');
    expect(j.criteria.filter((c) => c.form === 'asserted').map((c) => c.id)).toEqual([
      'drift',
      'crab',
      'swing',
      'bounce',
    ]);
    expect(
      judgeCaptured({ ...untouched, touched: 'three-point', intervention: 0, cleanTap: 'climbing-away' }, context)
        .missingRequired,
    ).toEqual(['lateral', 'along']);
  });
  it('what was seen beats clean', () => {
    expect(
      judgeCaptured({ ...good, cleanTap: 'stopped', swing: { band: 'large', side: 'left' } }, context),
    ).toMatchObject({ landingClass: 'outside', controlOutside: ['swing'] });
  });
  it('a push in a bounce is outside at any count', () => {
    expect(judgeCaptured({ ...good, bounce: { count: 1, handling: 'pushed' } }, context).landingClass).toBe('outside');
    expect(judgeCaptured({ ...good, bounce: { count: 1, handling: 'held' } }, context).landingClass).toBe('own');
  });
  it('the speed at the threshold is judged in knots, in the dial\u2019s own miles per hour', () => {
    const at = (fenceSpeed: number) =>
      judgeCaptured({ ...good, fenceSpeed }, context).criteria.find((c) => c.id === 'speed')?.verdict;
    expect(at(57)).toBe('within');
    expect(at(52)).toBe('edge');
    expect(at(51)).toBe('outside');
    expect(at(68)).toBe('edge');
    expect(at(69)).toBe('outside');
    // Said in the dial's own unit: 10 kt are 11.5 mph, 5 kt are 5.75, and the limit is rounded down.
    const said = (fenceSpeed: number) =>
      criterionWords(
        judgeCaptured({ ...good, fenceSpeed }, context).criteria.find((c) => c.id === 'speed')?.reasons ?? [],
      );
    expect(said(69)).toBe('Read +12 mph from the target; the standard allows -5 to +11 mph.');
    expect(said(57)).toBe('Read +0 mph from the target; the standard allows -5 to +11 mph.');
    expect(said(52)).toBe('Read -5 mph from the target; the standard allows -5 to +11 mph.');
    expect(said(51)).toBe('Read -6 mph from the target; the standard allows -5 to +11 mph.');
  });
  it('off target is the pilot\u2019s own, help is not', () => {
    expect(judgeCaptured({ ...good, along: 'long' }, context).landingClass).toBe('own-off-target');
    expect(judgeCaptured({ ...good, intervention: 1 }, context).landingClass).toBe('prompted');
    expect(judgeCaptured({ ...good, intervention: 2 }, context).landingClass).toBe('assisted');
  });
  it('continuing past the trigger is outside, on the instructor\u2019s word it is not', () => {
    expect(judgeCaptured({ ...good, trigger: 'met-and-continued' }, context).landingClass).toBe('outside');
    expect(judgeCaptured({ ...good, trigger: 'continued-on-instructors-word' }, context).landingClass).toBe('own');
  });
  it('a go-around is a decision and its execution, apart', () => {
    const six = {
      power: 'within',
      attitude: 'within',
      speed: 'edge',
      configurationOrder: 'within',
      tracking: 'within',
      secondContact: 'within',
    } as const;
    const g = judgeCaptured(
      { ...untouched, kind: 'go-around', goAroundWord: 'before', goAroundExecution: six, intervention: 0 },
      context,
    );
    expect(g.goAround).toMatchObject({ decision: 'sound', execution: 'good', breaksRun: false });
    expect(
      judgeCaptured({ ...untouched, kind: 'go-around', goAroundWord: 'late', intervention: 0 }, context).goAround,
    ).toMatchObject({ decision: 'late', execution: 'not-judged' });
  });
  it('never throws, and never calls anything own that was helped', () => {
    const arbitrary = fc.record({
      intervention: fc.constantFrom(null, 0, 1, 2, 3),
      touched: fc.constantFrom(null, 'three-point', 'flat'),
      lateral: fc.constantFrom(null, 'line', 'beyond-left'),
      cleanTap: fc.constantFrom(null, 'stopped'),
    });
    fc.assert(
      fc.property(arbitrary, (part) => {
        const j = judgeCaptured({ ...good, ...part } as CapturedLanding, context);
        if (part.intervention !== 0) expect(j.landingClass.startsWith('own')).toBe(false);
      }),
    );
  });
});

const source = ProgrammeSource.parse(tailwheel);
const programme = composeProgramme(source, 'us') as Programme;
let serial = 0;
const landing = (
  lesson: number,
  captured: Partial<CapturedLanding> = {},
  more: Partial<RecordedLanding> = {},
): RecordedLanding => {
  const data = { ...good, ...captured } as CapturedLanding;
  serial++;
  return {
    id: `l${serial}`,
    number: serial,
    sortieId: `s${lesson}`,
    lesson,
    date: `2026-11-${String(lesson).padStart(2, '0')}`,
    firstOfSortie: false,
    group: 'light-tailwheel',
    kind: data.kind,
    intended: data.intended,
    crosswindKt: 8,
    judged: judgeCaptured(data, context),
    ...more,
  };
};
const record = (landings: RecordedLanding[], more: Partial<EvidenceRecord> = {}): EvidenceRecord => ({
  landings,
  observations: [],
  waivers: [],
  group: 'light-tailwheel',
  ...more,
});
const itemOf = (r: EvidenceRecord, id: string) => assessProgramme(programme, r).find((i) => i.item.id === id);

describe('assessProgramme', () => {
  it('asks for a run of the pilot\u2019s own over two flights and days, with a first landing in it', () => {
    const one = [landing(1, {}, { firstOfSortie: true }), landing(1), landing(1), landing(1), landing(1)];
    expect(itemOf(record(one), 'F4')).toMatchObject({ met: false });
    expect(itemOf(record(one), 'F4')?.missing).toContainEqual({ code: 'more-flights', params: { atLeast: 2 } });
    expect(itemOf(record([...one, landing(2)]), 'F4')).toMatchObject({ met: true });
  });
  it('a go-around does not break the run, a prompted landing restarts it', () => {
    const run = [landing(1, {}, { firstOfSortie: true }), landing(1), landing(1)];
    const around = landing(2, { kind: 'go-around', goAroundWord: 'before' });
    expect(itemOf(record([...run, around, landing(2), landing(2)]), 'F4')?.met).toBe(true);
    expect(itemOf(record([...run, landing(2, { intervention: 1 }), landing(2), landing(2)]), 'F4')?.met).toBe(false);
  });
  it('counts crosswind landings only in the programme\u2019s wind', () => {
    const looked = (more: Partial<RecordedLanding> = {}) => landing(1, { aileron: 'kept' }, more);
    const weak = [1, 2, 3].map(() => looked({ crosswindKt: 4 }));
    expect(itemOf(record(weak), 'F7')?.missing[0]).toMatchObject({ code: 'more-landings', params: { count: 3 } });
    expect(itemOf(record([looked({ crosswindKt: -7 }), looked(), looked()]), 'F7')?.met).toBe(true);
    expect(itemOf(record([looked({ crosswindKt: null }), looked(), looked()]), 'F7')?.met).toBe(false);
  });
  it('needs both a sound decision and good executions', () => {
    const six = {
      power: 'within',
      attitude: 'within',
      speed: 'within',
      configurationOrder: 'within',
      tracking: 'within',
      secondContact: 'within',
    } as const;
    const exercise = (goAroundFrom: 'approach' | 'flare' | 'bounce') =>
      landing(1, { kind: 'go-around', goAroundWord: 'exercise', goAroundExecution: six }, { goAroundFrom });
    expect(itemOf(record([exercise('approach'), exercise('flare'), exercise('bounce')]), 'F8')?.missing).toEqual([
      { code: 'more-decided', params: { count: 1, withinDays: null } },
    ]);
    expect(
      itemOf(
        record([
          exercise('flare'),
          exercise('bounce'),
          landing(2, { kind: 'go-around', goAroundWord: 'at', goAroundExecution: six }, { goAroundFrom: 'approach' }),
        ]),
        'F8',
      )?.met,
    ).toBe(true);
  });
  it('an item seen outside the last time is to be seen again', () => {
    const seen = (verdict: 'within' | 'outside', id: string) => ({
      id,
      date: '2026-11-01',
      lesson: 1,
      data: { itemId: 'F9', verdict, intervention: 0, note: '', detail: null, pilotId: null },
    });
    expect(itemOf(record([], { observations: [seen('within', 'a')] }), 'F9')?.met).toBe(true);
    expect(itemOf(record([], { observations: [seen('within', 'a'), seen('outside', 'b')] }), 'F9')?.met).toBe(false);
  });
  it('waives only what the programme lets be waived', () => {
    const waivers = [
      { itemId: 'F5', reason: 'Handbook 4.5 advises against' },
      { itemId: 'F8', reason: 'no time for it' },
    ];
    expect(itemOf(record([], { waivers }), 'F5')).toMatchObject({ met: true, waived: 'Handbook 4.5 advises against' });
    expect(itemOf(record([], { waivers }), 'F8')?.met).toBe(false);
  });
  it('names prerequisites that are not met', () => {
    expect(itemOf(record([]), 'F4')?.missing).toContainEqual({ code: 'first-items', params: { ids: ['F3'] } });
  });
});

describe('composeProgramme', () => {
  it('cites each pack\u2019s own law and puts the house on top', () => {
    expect(programme.items.find((i) => i.id === 'F4')).toMatchObject({ source: 'pack', citation: '14 CFR 61.31(i)' });
    expect(programme.items.find((i) => i.id === 'F10')).toMatchObject({ source: 'house' });
    expect(composeProgramme(source, 'eu')?.items.find((i) => i.id === 'F4')?.citation).toContain('FCL.710');
    // What the law asks for has no programme of the school's alone.
    expect(composeProgramme(source, 'house')).toBeNull();
    const own = ProgrammeSource.parse(shortField);
    expect(composeProgramme(own, 'house')?.items.every((i) => i.source === 'house' && !i.legal)).toBe(true);
    expect(composeProgramme(own, 'us')).toBeNull();
  });
});

describe('signingProblems', () => {
  const facts: SigningFacts = {
    authorised: true,
    ownCheckout: false,
    lastFlownTogether: '2026-11-20',
    onDate: '2026-11-24',
    withinDays: 30,
    certificateUntil: '2027-01-31',
    signerLacks: [],
    ratings: [],
    reviewWithout: [],
    sheetOpen: [],
    modelHours: null,
    notRecent: [],
    openLimits: [],
    overrides: [],

    stops: [],
    prerequisites: [],
  };
  const codes = (r: EvidenceRecord, f: Partial<SigningFacts>) =>
    signingProblems([], r, { ...facts, ...f }).map((p) => p.code);
  it('lets a complete checkout pass', () => expect(codes(record([]), {})).toEqual([]));
  it('stops each thing the rules name', () => {
    expect(codes(record([]), { ownCheckout: true, authorised: false })).toEqual(['own', 'not-authorised']);
    expect(codes(record([]), { lastFlownTogether: '2026-10-01' })).toEqual(['not-flown']);
    expect(codes(record([]), { lastFlownTogether: null })).toEqual(['not-flown']);
  });
  it('a continued trigger stands until a go-around decided in time', () => {
    const continued = landing(1, { trigger: 'met-and-continued' });
    expect(codes(record([continued]), {})).toEqual(['trigger']);
    expect(codes(record([continued, landing(2, { kind: 'go-around', goAroundWord: 'late' })]), {})).toEqual([
      'trigger',
    ]);
    expect(codes(record([continued, landing(2, { kind: 'go-around', goAroundWord: 'at' })]), {})).toEqual([]);
  });
});

describe('statistics', () => {
  it('the Wilson bound lies below the share, the quantiles in order', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 60 }), (n, k0) => {
        const k = Math.min(n, k0);
        const s = share(k, n);
        expect(s.wilsonLower90 ?? 0).toBeLessThanOrEqual((s.share ?? 0) + 1e-12);
        expect(s.posteriorQ10).toBeLessThan(s.posteriorQ50);
        expect(s.posteriorQ50).toBeLessThan(s.posteriorQ90);
      }),
    );
  });
  it('a longer record never shortens the run by an own landing', () => {
    const l = (landingClass: string, i: number) => ({
      sortieId: `s${i % 3}`,
      date: `2026-11-0${(i % 3) + 1}`,
      firstOfSortie: i % 3 === 0,
      group: 'g',
      attitude: 'three-point',
      crosswindKt: 5,
      landingClass,
    });
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('own', 'prompted', 'go-around', 'not-judged', 'own-off-target'), { maxLength: 12 }),
        (classes) => {
          const ask = { needed: 5, group: 'g', attitude: null, windKt: null, accuracyItem: false };
          const before = runRule({ ...ask, landings: classes.map(l) }).currentRun;
          expect(runRule({ ...ask, landings: [...classes, 'own'].map(l) }).currentRun).toBeGreaterThanOrEqual(
            Math.min(before, 1),
          );
        },
      ),
    );
  });
  it('summaries count every landing once', () => {
    const all = [
      landing(1),
      landing(1, { intervention: 1 }),
      landing(1, { intervention: 3 }),
      landing(1, { kind: 'go-around', goAroundWord: 'at' }),
      landing(2, { demonstration: true }),
      landing(2, { along: 'long' }),
    ];
    const [one, two] = lessonSummaries(all);
    expect(one).toMatchObject({ landings: 3, own: 1, prompted: 1, assisted: 1, goArounds: 1 });
    expect(two).toMatchObject({ landings: 1, own: 1, demonstrations: 1 });
    expect(recentShare(all)).toMatchObject({ window: 4, own: 2, onTarget: 1 });
  });
});
