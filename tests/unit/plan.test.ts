import { describe, expect, it } from 'vitest';
import { types } from '@demo/fleet';
import us from '@content/packs/us.json';
import eu from '@content/packs/eu.json';
import { goalsRequired, openCheckout, sheetFacts } from '@/core/plan';
import { RulePack } from '@/domain/programme';

const facts = (code: string) => {
  const s = types.find((t) => t.code === code);
  if (!s) throw new Error(code);
  return sheetFacts(s);
};
const packUs = RulePack.parse(us);
const packEu = RulePack.parse(eu);
const sel = { kind: 'single-engine-land', gainedOn: '2015-01-01', note: '' };

describe('what an airframe demands', () => {
  it('is derived from the sheet', () => {
    expect(goalsRequired(facts('alvor-c1'), 'us').endorsements).toEqual([]);
    expect(goalsRequired(facts('serrana-urze'), 'us').endorsements).toEqual(['tailwheel']);
    expect(goalsRequired(facts('serrana-carvalho'), 'us').endorsements).toEqual(['tailwheel', 'high-performance']);
    expect(goalsRequired(facts('serrana-carvalho'), 'eu').endorsements).toEqual(['TW', 'VP']);
  });
});

describe('openCheckout', () => {
  it('proposes two goals for the heavy tailwheel and makes the instructor pilot in command', () => {
    const o = openCheckout(facts('serrana-carvalho'), packUs, [sel], {}, 'x');
    expect(o.proposedGoals).toEqual(['tailwheel', 'high-performance']);
    expect(o).toMatchObject({ missing: ['tailwheel', 'high-performance'], pic: 'instructor' });
    expect(o.decides.every((d) => d.by === 'instructor')).toBe(true);
  });
  it('credits experience logged before the date of the law, and only that', () => {
    expect(
      openCheckout(facts('serrana-carvalho'), packUs, [sel], { 'high-performance': '1996-06-01' }, 'x').credited.map(
        (c) => c.kind,
      ),
    ).toEqual(['high-performance']);
    expect(
      openCheckout(facts('serrana-carvalho'), packUs, [sel], { 'high-performance': '1997-08-04' }, 'x').credited,
    ).toEqual([]);
  });
  it('who holds everything may be pilot in command, and a new type is proposed', () => {
    expect(
      openCheckout(facts('serrana-urze'), packUs, [sel, { kind: 'tailwheel', gainedOn: null, note: '' }], {}, 'x'),
    ).toMatchObject({ pic: 'pilot', missing: [], proposedGoals: ['new-type'] });
  });
  it('names the European variants by their own goal', () => {
    expect(openCheckout(facts('serrana-carvalho'), packEu, [sel], {}, 'x').proposedGoals).toEqual([
      'tailwheel',
      'complex',
    ]);
  });
  it('an unfinished sheet leaves it undecided', () => {
    expect(openCheckout({ ...facts('alvor-c1'), powerHp: null }, packUs, [sel], {}, 'x')).toMatchObject({
      pic: 'undetermined',
    });
  });
});
