import type { Transaction } from 'sequelize';
import { type JudgedLanding, assertedIn } from '@/core/assess';
import { gearMassGroup, ladderStepKt } from '@/core/plan';
import { type Ladder, type LadderLanding, pilotLadder } from '@/core/wind';
import type { CapturedLanding } from '@/domain/capture';
import type { TypeSheet } from '@/domain/sheet';
import { row, rows } from '../../floor/connection';

/** The pilot's own crosswind step in this gear-and-mass group, from every checkout's landings. */
export async function ladderOf(pilotId: string, sheet: TypeSheet, onDate: string, t?: Transaction): Promise<Ladder> {
  const group = gearMassGroup(sheet);
  const found = await rows<{
    flown_on: string;
    crosswind_kt: number | null;
    wind_age_min: number | null;
    captured: string;
    judged: string;
  }>(
    "SELECT flown_on, crosswind_kt, wind_age_min, captured, judged FROM landings WHERE pilot_id = :pilotId AND gear_group = :group AND kind NOT IN ('go-around', 'low-pass') ORDER BY flown_on, saved_at",
    { pilotId, group },
    t,
  );
  const landings = found.map((l): LadderLanding => {
    const captured = JSON.parse(l.captured) as CapturedLanding;
    const judged = JSON.parse(l.judged) as JudgedLanding;
    return {
      date: l.flown_on,
      group,
      crosswindKt: l.crosswind_kt,
      windAgeMin: l.wind_age_min,
      intervention: captured.intervention,
      demonstration: captured.demonstration,
      // What was only asserted proves no wind; a wheel off the surface is no place on it.
      criteria: {
        ...Object.fromEntries(
          judged.criteria.map((c) => [c.id, assertedIn({ criteria: [c] }).length > 0 ? 'not-seen' : c.verdict]),
        ),
        ...(judged.criteria.some((c) => c.id === 'off-surface') ? { lateral: 'outside' as const } : {}),
      },
    };
  });
  const pilot = await row<{ crosswind_credit: string | null }>(
    'SELECT crosswind_credit FROM pilots WHERE id = :pilotId',
    { pilotId },
    t,
  );
  const credit = pilot?.crosswind_credit
    ? (JSON.parse(pilot.crosswind_credit) as { group: string; kt: number; date: string })
    : null;
  return pilotLadder({
    landings,
    group,
    onDate,
    stepKt: ladderStepKt(group),
    credit: credit?.group === group ? credit : null,
  });
}
