import { dayHere } from '@/server/rules/today';
import type { Metadata } from 'next';
import { components } from '@/core/wind';
import type { SightSheet } from '@/core/sightpicture';
import { usableEnds } from '@/core/approach';
import type { TypeSheet } from '@/domain/sheet';
import { may } from '@/server/floor/auth/permissions';
import { denyUnless } from '@/server/floor/auth/session';
import { SightPicture } from '@/ui/lab/sight-picture';
import { readState } from '@/ui/lab/query-state-read';
import { SIGHT_START, SIGHT_WORDS } from '@/ui/lab/starts';
import { LabFrame, type LabSearch, labPage } from '../../../lab-frame';
import { saveEyeAction, saveSightAction } from '../../../actions';

export const metadata: Metadata = { title: 'Sight picture' };

const slim = (s: TypeSheet): SightSheet => ({
  name: s.name,
  code: s.code,
  dial: s.dial,
  approach: s.approach,
  landing: s.landing,
  geometry: s.geometry,
  sight: s.sight,
  gear: s.gear,
  seats: s.seats,
});

export default async function SightPicturePage({ searchParams }: { searchParams: LabSearch }) {
  const day = await dayHere();
  const { user, facts, query, context } = await labPage(searchParams, 'picture');
  const { head, type, old, eyes, wind } = facts;
  const ends = usableEnds(facts.aerodrome, type.sheet.surface);
  const end = ends.find((e) => e.ident === facts.runwayEnd) ?? ends[0];
  denyUnless(end !== undefined);
  // From a checkout the runway and the crosswind are those of the day; in free play a calm day on an 18 m runway.
  const start = {
    ...SIGHT_START,
    ...(head
      ? {
          width: end.widthM,
          rslope: end.slopePct,
          xw: Math.round(components(wind.fromDeg, wind.kt, null, end.trueBearingDeg).crosswindKt),
        }
      : {}),
  };
  const eye = eyes.now.find((e) => e.seat === 'pilot');
  const oldEye = eyes.old.find((e) => e.seat === 'pilot');
  return (
    <LabFrame
      user={user}
      facts={facts}
      at="picture"
      title="Over the nose"
      line={
        head
          ? `${head.pilotName}: what was seen in the ${old.sheet.name}, and what will be seen in ${type.sheet.name}; runway ${end.ident}, crosswind ${wind.words}.`
          : `${old.sheet.name} against ${type.sheet.name}, anywhere on the approach.`
      }
    >
      <SightPicture
        key={`${type.key} ${old.key}`}
        context={context}
        sheet={slim(type.sheet)}
        oldSheet={slim(old.sheet)}
        sigma={facts.sigma}
        runway={{ ident: end.ident, lengthM: end.lengthM, landmark: end.landmark }}
        start={start}
        initial={readState(start, query, SIGHT_WORDS)}
        eyeHeightM={{
          pilot: eye?.eyeHeightM ?? null,
          instructor: eyes.now.find((e) => e.seat === 'instructor')?.eyeHeightM ?? null,
        }}
        oldEyeHeightM={oldEye?.eyeHeightM ?? null}
        eyeWords={eye ? `${eye.eyeHeightM} m, ${eye.how}, by ${eye.enteredBy}, ${day(eye.enteredAt)}` : null}
        measure={{
          pilotId: head?.pilotId ?? null,
          version: type.version,
          action: may.changeHouse(user) ? saveSightAction : null,
        }}
        eyeAction={
          head && may.keepPilotRecord(user, head) && (type.key === head.registration || type.key === head.typeCode)
            ? saveEyeAction
            : null
        }
      />
    </LabFrame>
  );
}
