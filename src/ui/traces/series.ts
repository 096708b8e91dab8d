import { useEffect, useState } from 'react';
import { ktPerUnit } from '@/core/speeds';
import { type Series, unpackSeries } from '@/core/trace';
import type { Observable } from './observable';
import type { Dial } from './words';

function whyNot(e: unknown): string {
  if (e instanceof TypeError) return 'The track cannot be loaded without the network. Reload when it is back.';
  return e instanceof Error ? e.message : 'The track cannot be loaded.';
}

/** The rows of a recording, speeds in the unit of the dial; what is shown at first is all of it. */
export function useSeries(traceId: string, unit: Dial, shown: Observable<[number, number]>) {
  const [series, setSeries] = useState<Series | null>(null);
  const [failed, fail] = useState('');
  useEffect(() => {
    let gone = false;
    void fetch(`/api/traces/${traceId}/series`)
      .then(async (r) => {
        if (!r.ok)
          throw new Error(
            r.status === 404
              ? 'The track is nowhere near this field: there is nothing to draw. Exceedances are listed below.'
              : 'The track cannot be loaded.',
          );
        const s = inDial(unpackSeries(await r.arrayBuffer()), unit);
        if (!gone) {
          shown.set([0, s.tS[s.tS.length - 1] ?? 1]);
          setSeries(s);
        }
      })
      .catch((e: unknown) => {
        if (!gone) fail(whyNot(e));
      });
    return () => {
      gone = true;
    };
  }, [traceId, unit, shown]);

  return { series, failed, fail };
}

/** Speeds in the unit of the dial. */
function inDial(s: Series, unit: Dial): Series {
  const { ias, gs } = s.columns;
  const per = 1 / ktPerUnit(unit);
  return per === 1
    ? s
    : {
        ...s,
        columns: {
          ...s.columns,
          ...(ias ? { ias: ias.map((v) => v * per) } : {}),
          ...(gs ? { gs: gs.map((v) => v * per) } : {}),
        },
      };
}
