import {
  type LabDay,
  type LabSheetData,
  footForSwing,
  fromAddress,
  fromFindingWords,
  rollOutSpeed,
  writeTrials,
} from '@/core/lab';
import { checkoutRecord } from '@/server/checkout/queries/record';
import type { CheckoutHead } from '@/server/checkout/queries/head';
import { usableEnds } from '@/core/approach';
import { gearMassGroup, schoolCrosswind } from '@/core/plan';
import { components } from '@/core/wind';
import { type LabPage, LAB_TITLES } from '@/domain/lab-pages';
import type { TypeSheet } from '@/domain/sheet';
import { may } from '@/server/floor/auth/permissions';
import type { LabFacts } from '@/server/lab/queries/lab';
import { ladderPlan } from '@/server/schedule/queries/ladder-plan';
import { contentById, newestContent } from '@/server/rules/content';
import { readState } from '@/ui/lab/query-state-read';
import { Stage } from '@/ui/lab/stage';
import { stageStart } from '@/ui/lab/stage-start';
import { saveTrialResultAction } from './actions';
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
    // In free play there is no wind until one is set.
    crosswindKt: head ? (across?.crosswindKt ?? 0) : 0,
    gustKt: head ? (across?.gustCrosswindKt ?? null) : null,
    runwayWidthM: end?.widthM ?? NARROW_M,
    runwayIdent: end?.ident ?? '',
    circuitHeightFt: aerodrome.circuitHeightFt,
    windWords: head ? wind.words : null,
    limits: [
      ...(school ? [{ name: 'school limit', kt: school.kt }] : []),
      ...(facts.instructorLimitKt === null ? [] : [{ name: 'instructor\u2019s limit', kt: facts.instructorLimitKt }]),
    ],
    eyeHeightM: eyes.now.find((e) => e.seat === 'pilot')?.eyeHeightM ?? null,
  };
}

/** Trials of the checkout's flights with a power that is known: idle, or a share in per cent. */
async function trialsOf(head: CheckoutHead): Promise<string> {
  // With the flap the page opens with.
  const flapDeg = head.sheet.approach[head.sheet.approach.length - 1]?.flapDeg;
  const { trials } = await checkoutRecord(head);
  const words = { full: 'fully', part: 'partly', none: 'not' } as const;
  return writeTrials(
    trials.flatMap(({ data: t }) => {
      const share = t.idle ? 0 : Number(/^(\d{1,3}) ?%/.exec(t.power)?.[1] ?? Number.NaN) / 100;
      return t.flapDeg !== flapDeg || t.speed === null || t.arrested === null || !(share >= 0 && share <= 1)
        ? []
        : [{ speedKt: t.speed, powerShare: share, arrested: words[t.arrested] }];
    }),
  );
}

/** One page of the lab that is a model, set with the type, the day and what it was opened from. */
export async function LabStage({ page, search }: { page: LabPage; search: LabSearch }) {
  const { user, facts, query, context } = await labPage(search, page);
  const { head, type, old } = facts;
  const day = await dayOf(facts);
  const start = stageStart(page, slim(type.sheet), day);
  const finding = typeof query.finding === 'string' ? query.finding : '';
  const said = [fromAddress(finding, query)];
  const initial = readState(start, query);
  // A swing that was measured is set as the foot that makes it.
  const swingDeg = page === 'ground' && query.foot === undefined ? Number(query.swing) : Number.NaN;
  if (swingDeg > 0 && swingDeg < 180 && Object.keys(start).length > 0) {
    if (query.speed === undefined) initial.speed = rollOutSpeed(type.sheet);
    const set = Object.fromEntries(Object.entries(initial).flatMap(([k, v]) => (v === null ? [] : [[k, v]])));
    const footS = footForSwing(slim(type.sheet), set, day, swingDeg);
    if (footS !== null) {
      initial.foot = footS;
      said.push({ code: 'foot', params: { deg: swingDeg, footS } });
    }
  }
  const words = said.flatMap((x) => (x ? [fromFindingWords(x)] : []));
  return (
    <LabFrame
      user={user}
      facts={facts}
      at={page}
      title={LAB_TITLES[page]}
      line={
        day.windWords === null
          ? `${type.sheet.name}, in no wind until one is set.`
          : `${type.sheet.name}, runway ${day.runwayIdent}, wind ${day.windWords}.`
      }
    >
      <Stage
        key={`${page} ${type.key} ${old.key}`}
        page={page}
        context={context}
        sheet={slim(type.sheet)}
        old={old.key === type.key ? null : slim(old.sheet)}
        day={day}
        start={start}
        initial={initial}
        mayBrief={head !== null && may.runCheckout(user, head)}
        note={words.length > 0 ? words.join(' ') : null}
        trials={page === 'slow-approach' && head ? await trialsOf(head) : ''}
        lessons={page === 'crosswind' && head ? await ladderPlan(user, head, facts.instructorLimitKt) : null}
        toSheet={
          page === 'slow-approach' && may.changeHouse(user)
            ? { code: type.sheet.code, version: type.version, action: saveTrialResultAction }
            : null
        }
      />
    </LabFrame>
  );
}
