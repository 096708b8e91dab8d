import { say } from '@/domain/words';

/** Counts of the states of a programme, in words. */
export const stateWords = (states: readonly string[]): string =>
  ['met', 'credited', 'waived', 'overridden', 'nearly', 'not']
    .flatMap((s) => {
      const n = states.filter((x) => x === s).length;
      return n > 0 ? [`${n} ${s === 'not' ? 'open' : say(s)}`] : [];
    })
    .join(', ');
