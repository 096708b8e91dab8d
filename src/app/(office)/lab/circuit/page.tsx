import type { Metadata } from 'next';
import type { PaceSheet } from '@/core/circuit';
import { usableEnds } from '@/core/approach';
import { endsOf } from '@/core/runway';
import type { TypeSheet } from '@/domain/sheet';
import { packWords } from '@/domain/words';
import { contentById, newestContent } from '@/server/rules/content';
import { Circuit } from '@/ui/lab/circuit';
import { readState } from '@/ui/lab/query-state-read';
import { CIRCUIT_START, CIRCUIT_WORDS } from '@/ui/lab/starts';
import { LabFrame, type LabSearch, labPage } from '../../../lab-frame';

export const metadata: Metadata = { title: 'Pace of the circuit' };

const slim = (s: TypeSheet): PaceSheet => ({
  name: s.name,
  dial: s.dial,
  gear: s.gear,
  engine: s.engine,
  wing: s.wing,
  masses: s.masses,
  drag: s.drag,
  speeds: s.speeds,
  stalls: s.stalls,
  approach: s.approach,
  flows: s.flows,
  flapSteps: s.flapSteps,
  distances: s.distances,
  surface: s.surface,
  onLand: s.onLand,
  twin: s.twin,
  landing: s.landing,
});

export default async function CircuitPage({ searchParams }: { searchParams: LabSearch }) {
  const { user, facts, query, context } = await labPage(searchParams, 'circuit');
  const { head, type, old, wind, aerodrome } = facts;
  const house = head ? await contentById('house', head.houseId) : (await newestContent('house', 'house'))?.body;
  const ends = usableEnds(aerodrome, type.sheet.surface);
  const headwind = (bearingDeg: number) => Math.cos(((wind.fromDeg - bearingDeg) * Math.PI) / 180);
  // The longest that is not downwind, into the wind where two are as long.
  const [best] = ends
    .map((e) => ({ e, head: headwind(e.trueBearingDeg) }))
    .sort((a, b) => Number(b.head > 0) - Number(a.head > 0) || b.e.lengthM - a.e.lengthM || b.head - a.head);
  const end = ends.find((e) => e.ident === facts.runwayEnd) ?? best?.e;
  const start = {
    ...CIRCUIT_START,
    runway: end?.ident ?? '',
    side: end?.circuit ?? CIRCUIT_START.side,
    wdir: Math.round(wind.fromDeg / 10) * 10 || 360,
    wkt: Math.round(wind.kt),
    height: aerodrome.circuitHeightFt,
    glide: house?.reach.bankDeg ?? 35,
    react: house?.reach.reactionS ?? 4,
    oat: Math.round(facts.oatC),
  };
  const words = packWords(head?.pack ?? 'eu');
  return (
    <LabFrame
      user={user}
      facts={facts}
      at="circuit"
      title={`Pace of the ${words.circuit}`}
      line={`${type.sheet.name} against ${old.sheet.name} at ${aerodrome.name}, wind ${wind.words}.`}
    >
      <Circuit
        key={`${type.key} ${old.key}`}
        context={context}
        sheet={slim(type.sheet)}
        oldSheet={slim(old.sheet)}
        start={start}
        initial={readState(start, query, CIRCUIT_WORDS)}
        windSource={wind.words}
        word={words.circuit}
        strips={aerodrome.runways.map((r) => ({
          surface: r.surface,
          lengthM: r.lengthM,
          widthM: r.widthM,
          slopes: endsOf(r).map((e) => e.slopePct),
          elevationFt: r.elevationFt,
          eastM: r.centre.eastM,
          northM: r.centre.northM,
          ends: r.ends.map((e) => ({ ident: e.ident, trueBearingDeg: e.trueBearingDeg, circuit: e.circuit })),
        }))}
        houseRunway={house?.runway ?? null}
        turnBack={{ heightFt: house?.reach.turnBackFt ?? 700, source: house?.reach.source ?? 'product default' }}
      />
    </LabFrame>
  );
}
