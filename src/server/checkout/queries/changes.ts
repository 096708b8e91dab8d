import { WORD_CRITERION_IDS, WORD_CRITERION_NAMES } from '@/domain/criteria';
import { plain } from '@/core/format';
import { landingNoted } from '@/core/assess';
import type { CapturedLanding, ItemObserved } from '@/domain/capture';
import type { ChangeLine } from '@/domain/changes';
import { INTERVENTIONS, say } from '@/domain/words';
import { fold, affecting } from '@/offline/protocol';
import { type CheckoutRecord } from './record';
import { eventsOf } from './flights';
import * as ask from '../../floor/statements/checkout';

type Field = keyof CapturedLanding;
const SHOWN: readonly [Field, string][] = [
  ['kind', 'kind'],
  ['demonstration', 'demonstration'],
  ['intervention', 'whose'],
  ['intended', 'meant'],
  ['touched', 'touched'],
  ['along', 'place along'],
  ['lateral', 'place across'],
  ['fenceSpeed', 'threshold speed'],
  ['drift', 'drift'],
  ['crab', 'crab'],
  ['swing', 'swing'],
  ['bounce', 'bounce'],
  ...WORD_CRITERION_IDS.map((id): [Field, string] => [id, WORD_CRITERION_NAMES[id]]),
  ['serious', 'outside in one tap'],
  ['trigger', 'go-around trigger'],
  ['cleanTap', 'clean tap'],
  ['goAroundWord', 'when'],
  ['goAroundFrom', 'from where'],
  ['goAroundWhy', 'why'],
  ['announced', 'announced'],
  ['goAroundExecution', 'how it was flown'],
  ['helpedOn', 'assisted on'],
  ['pilotId', 'flown by'],
  ['runwayEnd', 'runway'],
  ['gateSpeeds', 'speeds at the gates'],
  ['notes', 'notes'],
  ['note', 'note'],
];

function valueWords(field: Field, value: unknown, names: ReadonlyMap<string, string>): string {
  if (value === null || value === undefined) return field === 'pilotId' ? 'the pilot of this checkout' : 'not seen';
  if (field === 'intervention') return INTERVENTIONS[value as number]?.word ?? plain(value);
  if (field === 'pilotId') return names.get(value as string) ?? 'the second pilot';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map((v) => say(plain(v))).join(', ');
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'object') {
    const o = value as Record<string, unknown>;
    const parts = Object.entries(o).flatMap(([k, v]) =>
      v === null
        ? []
        : [
            k === 'band' || k === 'side' || k === 'handling'
              ? say(plain(v))
              : k === 'count'
                ? plain(v)
                : `${say(k)} ${say(plain(v))}`,
          ],
    );
    return parts.length === 0 ? 'not seen' : parts.join(' ');
  }
  return typeof value === 'number' ? String(value) : value === '' ? 'none' : say(value as string);
}

/** What differs between two forms of a landing, in words. */
function differenceWords(before: CapturedLanding, after: CapturedLanding, names: ReadonlyMap<string, string>): string {
  const parts = SHOWN.filter(([f]) => JSON.stringify(before[f]) !== JSON.stringify(after[f])).map(
    ([f, name]) => `${name} ${valueWords(f, before[f], names)} to ${valueWords(f, after[f], names)}`,
  );
  return parts.length === 0 ? 'nothing shown' : parts.join('; ');
}
function landingWords(l: CapturedLanding, names: ReadonlyMap<string, string>): string {
  const seen = SHOWN.filter(
    ([f]) => !['kind', 'notes', 'note', 'gateSpeeds', 'runwayEnd', 'pilotId', 'demonstration'].includes(f),
  ).flatMap(([f, name]) => {
    const words = valueWords(f, l[f], names);
    return words === 'not seen' || words === 'none' ? [] : [`${name} ${words}`];
  });
  return [say(l.kind), ...(l.demonstration ? ['demonstration'] : []), ...seen, ...landingNoted(l, [], '')].join(', ');
}

/** What was corrected or undone in a lesson, oldest first. Nothing leaves the record without standing here. */
export async function changesOf(record: CheckoutRecord, lesson: number): Promise<ChangeLine[]> {
  const sortie = record.sorties.find((s) => s.lesson === lesson);
  if (!sortie) return [];
  const { changes } = fold(await eventsOf({ sortieId: sortie.sharedWith ?? sortie.id }, affecting('captured')));
  if (changes.length === 0) return [];
  // Of a shared flight, what was or became this pilot's.
  const second = sortie.sharedWith !== null;
  const mine = (id: string | null | undefined) => ((id ?? null) !== null) === second;
  const own = changes.filter((c) => mine(c.before.pilotId) || (c.after !== null && mine(c.after.pilotId)));
  const people = await ask.changesOf.all({
    ids: [...new Set(['', ...own.map((c) => c.author)])],
    pilots: [...new Set(['', ...own.flatMap((c) => [c.before.pilotId ?? '', c.after?.pilotId ?? ''])])],
  });
  const names = new Map(people.map((p) => [p.id, p.name]));
  const titles = new Map(record.programmes.flatMap((p) => p.items).map((i) => [i.id, `${i.id} ${i.title}`]));
  return own.map((c): ChangeLine => {
    const by = { change: c.change, by: names.get(c.author) ?? '', at: c.at, again: c.replacedBy !== null };
    const key = `${c.subject} ${c.at}`;
    if (c.what === 'item') {
      const item = c.before as ItemObserved;
      return {
        ...by,
        key,
        what: titles.get(item.itemId) ?? say(item.itemId.split(':')[1] ?? item.itemId),
        words: `was ${say(item.verdict)}, ${INTERVENTIONS[item.intervention]?.word ?? ''}${item.note ? `: ${item.note}` : ''}`,
      };
    }
    const before = c.before as CapturedLanding;
    return {
      ...by,
      key,
      what: `${before.kind === 'go-around' ? 'Go-around' : 'Landing'} ${c.number ?? ''}`,
      words: c.after ? differenceWords(before, c.after, names) : `was ${landingWords(before, names)}`,
    };
  });
}
