import { CUT_SHORT_WORDS } from '@/domain/words';
import type { CheckoutRecord } from '@/server/checkout/queries/record';
import { SwapForm } from '@/ui/open/swap-form';
import { hangar } from '@/server/hangar/queries/hangar';
import { Handover } from '@/ui/debrief/handover';
import { localToday } from '@/server/rules/today';
import { isNight } from '@/core/sun';
import { nextAerodrome } from '@/server/checkout/queries/where';
import { nextBookingOf } from '@/server/schedule/queries/bookings';
import { usableEnds } from '@/core/approach';
import { dateText, fixed, list, localDate } from '@/core/format';
import { clockText } from '@/core/schedule';
import { components } from '@/core/wind';
import { aerodromeAt, aerodromes, contentById, newestContent } from '@/server/rules/content';
import { weatherNow, windOutlook } from '@/server/weather/weather';
import { chosenSchools } from '@/ui/brief/blocks';
import { nowIso } from '@/server/floor/clock';
import { ladderOf } from '@/server/checkout/queries/ladder';
import { flownLessons } from '@/server/checkout/queries/stage';
import { briefTemplate, groundSamples } from '@/server/checkout/queries/flights';
import { debriefOf, planOf } from '@/server/debrief/queries/debrief';
import { carriedFocus, carriedLayout, topicsFor } from '@/core/plan';
import { differencesOf, eyeHeightOf } from '@/server/people/queries/pilot';
import { habitCues } from '@/core/differences';
import { unconfirmed } from '@/core/sheet';
import { SampleNote } from '@/ui/hangar/sample-note';
import { may } from '@/server/floor/auth/permissions';
import { BriefWorkbench } from '@/ui/brief/workbench';
import { BriefView } from '@/ui/brief/view';
import { Link } from '@/ui/shared/link';
import { Empty } from '@/ui/shared/parts';
import { Title } from '@/ui/shared/title';
import { instructorLacks } from '@/server/fly/queries/stops';
import { groundings } from '@/server/hangar/queries/groundings';
import { GroundedNote } from '@/ui/stops/grounded-note';
import { Standing } from '@/ui/stops/standing';
import { FlightStrip } from '@/ui/shared/strip';
import type { BriefChoices } from '@/domain/brief';
import { checkoutPage, titled } from '../../../../checkout-page';
import {
  acknowledgeBriefAction,
  saveBriefAction,
  saveBriefTemplateAction,
  swapAeroplaneAction,
} from '../../../../actions';

export const generateMetadata = titled('Brief');

export default async function BriefPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ booking?: string }>;
}) {
  const named = (await searchParams).booking ?? null;
  const { user, record, strip, runs } = await checkoutPage(params);
  const { head, sorties } = record;
  const latest = sorties[sorties.length - 1];
  const flown = latest !== undefined && flownLessons(record).has(latest.lesson);
  const briefed = latest?.brief && !flown ? latest : null;
  const now = nowIso();
  const aerodrome = runs ? await nextAerodrome(record, now) : await aerodromeAt(latest?.aerodrome);
  const house = await contentById('house', head.houseId);
  const topics = topicsFor(head.sheet, (await newestContent('schools', 'schools'))?.body.topics ?? []);
  const pic =
    head.opening.pic === 'instructor'
      ? 'the instructor'
      : head.opening.pic === 'pilot'
        ? `${head.pilotName} may be`
        : 'not decided';
  const common = {
    pilotName: head.pilotName,
    registration: head.registration,
    sheet: head.sheet,
    house,
    aerodrome,
    schools: chosenSchools(topics, head.schools),
    pic: { who: pic, reason: head.opening.picReason, logs: head.opening.logs },
    insurer: head.airframe.insurer,
    defects: head.airframe.deferredDefects.map((d) => d.text),
  };
  const flags = await groundings({ openOnly: true });
  if (!runs || head.status !== 'open') {
    const toShow = latest?.brief ? latest : null;
    return (
      <>
        <FlightStrip facts={strip} at="brief" />
        <main id="main">
          <div className="column">
            <GroundedNote registration={head.registration} groundings={flags} pack={head.pack} />
            {toShow?.brief && head.status === 'open' ? (
              <Standing of={await instructorLacks(toShow.instructorId, head, toShow.flownOn)} />
            ) : null}
            {toShow?.brief ? (
              <BriefView
                {...common}
                lesson={toShow.lesson}
                choices={toShow.brief.choices}
                result={toShow.brief.snapshot}
                briefId={toShow.brief.id}
                acknowledgedAt={toShow.brief.acknowledgedAt}
                acknowledgedByName={toShow.brief.acknowledgedByName}
                flown={flownLessons(record).has(toShow.lesson)}
                mayAcknowledge={
                  may.acknowledgeBrief(user, head) &&
                  !toShow.brief.acknowledgedAt &&
                  !flownLessons(record).has(toShow.lesson)
                }
                acknowledge={acknowledgeBriefAction}
              />
            ) : (
              <>
                <Title title="Brief" />
                <Empty
                  title="Nothing briefed yet"
                  text="When the instructor saves the brief of the next lesson it stands here for you to read and acknowledge."
                />
              </>
            )}
          </div>
        </main>
      </>
    );
  }
  const previous = latest?.brief?.choices ?? null;
  const lesson = briefed ? briefed.lesson : (latest?.lesson ?? 0) + 1;
  const habits = habitCues((await differencesOf(head, now)).rows);
  const ladder = await ladderOf(head.pilotId, head.sheet, now);
  const room = head.sheet.masses.maxTakeoffKg.value - head.sheet.masses.emptyKg.value - head.pilotMassKg - user.massKg;
  const usual = head.sheet.landing.usualAttitude;
  const known = await aerodromes();
  const places = await Promise.all(known.map(async (a) => ({ aerodrome: a, station: await weatherNow(a) })));
  // What the schedule knows of the next booking: how long it is, and whether its flight ends in the dark.
  const booked = await nextBookingOf(head.id, now, named);
  const others = (await hangar())
    .flatMap((x) => x.airframes)
    .filter((a) => a.effective.code === head.typeCode && a.id !== head.airframeId)
    .map((a) => ({
      id: a.id,
      registration: a.registration,
      different: list(a.airframe.modifications.map((m) => m.name.toLowerCase())),
    }));
  const bookedIn = others.find((o) => o.id === booked?.airframeId) ?? null;
  const ends = usableEnds(aerodrome, head.sheet.surface);
  const lastEnd = ends.find((e) => e.ident === previous?.runwayEnd);
  // Today's booking is the one that is briefed; another day's where it is named, so that no lesson gets a day unasked.
  const bookedOn = booked ? localDate(booked.startsAt, aerodrome.timeZone) : null;
  const bookedDay = booked && (booked.id === named || bookedOn === (await localToday())) ? bookedOn : null;
  // By the wind expected when the flight begins; the surface is that of the last lesson, or of the booking.
  const wet =
    head.sheet.surface === 'sea' ||
    booked?.surface === 'water' ||
    (booked?.surface !== 'land' && lastEnd?.surface === 'water');
  const outlook = booked && bookedDay ? windOutlook(aerodrome.ident, now, booked.flightStarts) : null;
  const intoWind = outlook
    ? ends
        .filter((e) => (e.surface === 'water') === wet)
        .map((e) => ({ e, kt: components(outlook.fromDeg, outlook.kt, null, e.trueBearingDeg).headwindKt }))
        .sort((a, b) => b.kt - a.kt)[0]?.e
    : undefined;
  const fresh: BriefChoices = {
    flownOn: bookedDay ?? (await localToday()),
    ...(aerodrome.ident === known[0]?.ident ? {} : { aerodrome: aerodrome.ident }),
    runwayEnd: (intoWind ?? lastEnd ?? ends[0])?.ident ?? '',
    wind: null,
    maxFlapDeg: null,
    fuelL: Math.max(0, Math.min(head.sheet.engine.usableFuelL.value, Number(fixed(Math.floor(room / 0.72))))),
    pilotKg: head.pilotMassKg,
    instructorKg: user.massKg,
    baggageKg: 0,
    rearKg: 0,
    qnhHpa: null,
    oatC: null,
    surfaceState: 'dry',
    night: booked !== null && isNight(booked.flightEnds, aerodrome, record.pack.night.logging),
    bookingMin: booked?.minutes ?? house.bookingMin,
    second: null,
    layout: carriedLayout(await briefTemplate(head.goals[0] ?? ''), previous?.layout ?? null),
    speedSchool:
      (head.schools['approach-speed'] as BriefChoices['speedSchool'] | undefined) ?? head.sheet.landing.speedSchool,
    gustSchool: (head.schools.gust as BriefChoices['gustSchool'] | undefined) ?? 'half',
    intended:
      (head.sheet.gear.layout === 'tailwheel'
        ? (head.schools['first-landing'] as BriefChoices['intended'] | undefined)
        : undefined) ?? usual,
    instructorLimitKt: user.ownCrosswindKt,
    focus: '',
  };
  const plan = await planOf(head.id, lesson);
  // What the last debrief asked to think of is carried into this brief.
  const before = [...sorties].reverse().find((s) => s.lesson < lesson);
  const thought = before ? ((await debriefOf(before.id))?.focus ?? []) : [];
  const kept = briefed?.brief?.choices ?? {
    ...fresh,
    focus: carriedFocus(thought, plan?.focus ?? []) || (booked?.aim ?? ''),
  };
  const choices: BriefChoices = plan ? { ...kept, plan: plan.blocks } : kept;
  const swap =
    others.length > 0 ? (
      <details className="panel my-3" open={bookedIn !== null}>
        <summary>
          {bookedIn
            ? `The next lesson is booked in ${bookedIn.registration}, not in ${head.registration}`
            : `Flown in ${head.registration}. Another aeroplane of the type`}
        </summary>
        <SwapForm
          checkoutId={head.id}
          now={head.registration}
          others={others}
          booked={bookedIn?.id ?? null}
          action={swapAeroplaneAction}
        />
      </details>
    ) : null;
  return (
    <>
      <FlightStrip facts={strip} at="brief" />
      <main id="main">
        <div className="column">
          <GroundedNote registration={head.registration} groundings={flags} pack={head.pack} />
          <Standing of={await instructorLacks(user.id, head, now.slice(0, 10))} />
          <SampleNote
            code={head.typeCode}
            count={unconfirmed(head.sheet).length + unconfirmed(head.airframe).length}
            edits={may.changeHouse(user)}
          />
          {booked && bookedDay ? (
            <p className="soft small mb-2">
              {briefed ? 'Booked' : 'Filled from the booking of'} {dateText(bookedDay)},{' '}
              {clockText(booked.startsAt, aerodrome.timeZone)} to {clockText(booked.endsAt, aerodrome.timeZone)}
              {briefed
                ? '. The brief stands as it was saved.'
                : `: day, length, aerodrome${intoWind ? ', runway' : ''} and aim.`}{' '}
              <Link href={`/schedule?day=${bookedDay}&booking=${booked.id}`}>See the booking</Link>
            </p>
          ) : null}
          {bookedIn ? swap : null}
          <LastLesson record={record} before={before?.lesson ?? null} aim={booked?.aim ?? ''} />
          <BriefWorkbench
            {...common}
            checkoutId={head.id}
            lesson={lesson}
            choices={choices}
            airframeCrosswindKt={head.airframe.crosswindLimitKt?.value ?? null}
            ladder={ladder}
            habits={habits}
            eyeHeightM={await eyeHeightOf(head.pilotId, head.typeCode)}
            groundSamplesMin={await groundSamples(head.typeCode)}
            serverNow={now}
            saved={
              briefed?.brief
                ? {
                    briefId: briefed.brief.id,
                    sortieId: briefed.id,
                    version: briefed.brief.version,
                    createdAt: briefed.brief.createdAt,
                    acknowledgedAt: briefed.brief.acknowledgedAt,
                    acknowledgedByName: briefed.brief.acknowledgedByName,
                  }
                : null
            }
            places={places}
            action={saveBriefAction}
            templateAction={may.changeHouse(user) ? saveBriefTemplateAction : null}
          />
          {bookedIn ? null : swap}
        </div>
      </main>
    </>
  );
}

/** What the lesson before says to this one: what was handed over, and why it ended early. */
function LastLesson({ record, before, aim }: { record: CheckoutRecord; before: number | null; aim: string }) {
  const handover = before === null ? undefined : record.handovers.get(before);
  const short = before === null ? undefined : record.cutShort.get(before);
  if (!handover && !short && aim === '') return null;
  return (
    <div className="mb-3">
      {aim ? (
        <p className="mb-2">
          <strong>Aim, as booked:</strong> {aim}
        </p>
      ) : null}
      {short && before !== null ? (
        <p className="caution">
          Lesson {before} was cut short: {CUT_SHORT_WORDS[short]}. What it left open is asked again.
        </p>
      ) : null}
      {handover && before !== null ? <Handover lesson={before} of={handover} /> : null}
    </div>
  );
}
