import type { CapturedLanding } from '@/domain/capture';
import type { SortiePack } from '@/offline/protocol';

type Landing = Pick<CapturedLanding, 'kind' | 'demonstration' | 'intervention'>;

/** What a landing counts for as it was saved, in a line: the recency it renews, or why it renews none. */
export function countsFor(l: Landing, pack: SortiePack, runwayEnd: string): string {
  if (l.kind === 'low-pass') return 'A low pass is no landing.';
  if (l.demonstration) return 'Not counted: a demonstration.';
  if (l.intervention === null) return 'Not counted: who flew it is not said.';
  if (l.intervention >= 2) return 'Not counted: it was assisted.';
  if (l.kind === 'go-around') return 'Counts as a go-around.';
  const water = pack.runways.some((r) => r.ident === runwayEnd && r.surface === 'water');
  const full = l.kind === 'full-stop';
  const tail = full ? 'tailwheel' : 'not a tailwheel full stop';
  const parts = [full ? 'full stop' : 'touch and go', ...(water ? ['water'] : pack.tailwheel ? [tail] : [])];
  return `Counts: ${parts.join(', ')}.`;
}
