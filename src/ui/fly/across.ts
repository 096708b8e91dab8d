import { components } from '@/core/wind';
import { NO_CROSSWIND_KT } from '@/domain/touch';
import type { SortiePack } from '@/offline/protocol';
import type { Place } from './place';

/** There is wind across, or it is not known that there is none. */
export function windAcross(pack: SortiePack, { wind, runwayEnd }: Place): boolean {
  const end = pack.runways.find((r) => r.ident === runwayEnd);
  if (!wind || !end) return true;
  const c = components(wind.fromDegMag, wind.kt, wind.gustKt, end.magneticDeg);
  return Math.max(Math.abs(c.crosswindKt), Math.abs(c.gustCrosswindKt ?? 0)) >= NO_CROSSWIND_KT;
}
