import type { LabDay, LabSheetData } from '@/core/lab';
import { usableEnds } from '@/core/approach';
import { gearMassGroup, schoolCrosswind } from '@/core/plan';
import { components } from '@/core/wind';
import type { LabPage } from '@/domain/lab';
import type { TypeSheet } from '@/domain/sheet';
import { may } from '@/server/floor/auth/permissions';
import type { LabFacts } from '@/server/lab/queries/lab';
import { contentById, newestContent } from '@/server/rules/content';
import { readState } from '@/ui/lab/query-state-read';
import { Stage } from '@/ui/lab/stage';
import { stageStart } from '@/ui/lab/stage-start';
import { type LabSearch, LabFrame, labPage } from './lab-frame';

const slim = (s: TypeSheet): LabSheetData => ({
  name: s.name,
  dial: s.dial,
  gear: s.gear,
  engine: s.engine,
  masses: s.masses,
  wing: s.wing,
  drag: s.drag,
  speeds: s.speeds,
  stalls: s.stalls,
  flapSteps: s.flapSteps,
  approach: s.approach,
  landing: s.landing,
  crosswind: s.crosswind,
  geometry: s.geometry,
  sight: s.sight,
  seats: s.seats,
  dynamics: s.dynamics,
  surface: s.surface,
});

const SEA_LEVEL_KG_M3 = 1.225;
const NARROW_M = 18;

async function dayOf(facts: LabFacts): Promise<LabDay> {
  const { head, type, wind, aerodrome, eyes } = facts;
  const house = head ? await contentById('house', head.houseId) : (await newestContent('house', 'house'))?.body;
  const ends = usableEnds(aerodrome, type.sheet.surface);
  const end = ends.find((e) => e.ident === facts.runwayEnd) ?? ends[0];
  const across = end ? components(wind.fromDeg, wind.kt, wind.gustKt, end.trueBearingDeg) : null;
  const school = house ? schoolCrosswind(house.crosswindKt, gearMassGroup(type.sheet)) : null;
  return {
    rhoKgM3: SEA_LEVEL_KG_M3 * facts.sigma,
    crosswindKt: across?.crosswindKt ?? 0,
    gustKt: across?.gustCrosswindKt ?? null,
    runwayWidthM: end?.widthM ?? NARROW_M,
    runwayIdent: end?.ident ?? '',
    circuitHeightFt: aerodrome.circuitHeightFt,
    windWords: wind.words,
    limits: [
      ...(school ? [{ name: 'school limit', kt: school.kt }] : []),
      ...(facts.instructorLimitKt === null ? [] : [{ name: 'instructor\u2019s limit', kt: facts.instructorLimitKt }]),
    ],
    eyeHeightM: eyes.now.find((e) => e.seat === 'pilot')?.eyeHeightM ?? null,
  };
}

/** One page of the lab that is a model, set with the type, the day and what it was opened from. */
export async function LabStage({ page, search }: { page: LabPage; search: LabSearch }) {
  const { user, facts, query, context } = await labPage(search, page);
  const { head, type, old } = facts;
  const day = await dayOf(facts);
  const start = stageStart(page, slim(type.sheet), day);
  const from = typeof query.from === 'string' ? query.from.slice(0, 120) : null;
  return (
    <LabFrame
      user={user}
      facts={facts}
      at={page}
      title={LAB_TITLES[page]}
      line={`${type.sheet.name}; wind ${day.windWords}${day.runwayIdent === '' ? '' : `, runway ${day.runwayIdent}`}.`}
    >
      <Stage
        key={`${page} ${type.key} ${old.key}`}
        page={page}
        context={context}
        sheet={slim(type.sheet)}
        old={old.key === type.key ? null : slim(old.sheet)}
        day={day}
        start={start}
        initial={readState(start, query)}
        mayBrief={head !== null && may.runCheckout(user, head)}
        note={from}
      />
    </LabFrame>
  );
}

export const LAB_TITLES: Record<LabPage, string> = {
  ground: 'Straight or swerving',
  touch: 'The touch',
  crosswind: 'Crosswind',
  'side-picture': 'Side picture',
  slip: 'Slip',
  'slow-approach': 'Slow approach',
};
