import { type Away, type Hold, later, type Weekly } from '@/core/schedule';
import { Op, type Transaction } from 'sequelize';
import { nowIso } from '../../floor/clock';
import * as ask from '../../floor/statements/schedule';
import { limitHeld } from '../../hangar/queries/groundings';
import { BookingHolds, WeeklyWindows } from '../tables';
import { airKey } from './day';

export async function holdsBetween(from: string, to: string, t?: Transaction): Promise<(Hold & { what: string })[]> {
  const found = await BookingHolds.find(
    {
      where: { endsAt: { [Op.gt]: from }, startsAt: { [Op.lt]: to } },
      pick: ['bookingId', 'holder', 'startsAt', 'endsAt'],
      with: {
        booking: { pick: ['kind'], with: { pilot: ['name'], instructor: ['name'], airframe: ['registration'] } },
      },
      order: ['startsAt'],
    },
    t,
  );
  return found.map((h) => ({
    bookingId: h.bookingId,
    holder: h.holder,
    from: h.startsAt,
    to: h.endsAt,
    what: [
      h.booking.airframe?.registration,
      h.booking.pilot?.name,
      h.booking.instructor ? `with ${h.booking.instructor.name}` : '',
    ]
      .filter(Boolean)
      .join(' '),
  }));
}
export async function weeklyRows(t?: Transaction): Promise<(Weekly & { id: string })[]> {
  return (await WeeklyWindows.find({ where: { endedAt: null } }, t)).map((w) => ({
    id: w.id,
    person: w.person,
    weekday: w.weekday,
    fromMin: w.fromMin,
    toMin: w.toMin,
    validFrom: w.validFrom,
    validUntil: w.validUntil,
  }));
}
export interface AwayRow extends Away {
  id: string;
  kind: 'away' | 'maintenance' | 'exceedance' | 'grounded';
}
/** Times away, aeroplanes down, and aeroplanes with a limit passed and not released. */
export async function awayRows(t?: Transaction): Promise<AwayRow[]> {
  const away = await ask.awayRows.all({ now: later(nowIso(), -7 * 1440) }, t);
  const limits = await ask.awayRowsExceedances.all({ now: nowIso() }, t);
  const grounded = await ask.awayRowsGroundings.all({ now: nowIso() }, t);
  return [
    ...grounded.map((g): AwayRow => ({
      id: g.id,
      kind: 'grounded',
      who: airKey(g.airframeId),
      from: g.placedAt,
      to: null,
      why: `grounded: ${g.why}`,
    })),
    ...away.map((a): AwayRow => ({ id: a.id, kind: a.kind, who: a.who, from: a.fromAt, to: a.toAt, why: a.why })),
    ...limits.map((l): AwayRow => ({
      id: l.id,
      kind: 'exceedance',
      who: airKey(l.airframeId),
      from: l.foundAt,
      to: null,
      why: limitHeld(l.channel, l.traceId),
    })),
  ];
}
