import { type LogbookLines, logbookLines } from '@/core/logbook';
import { dateText } from '@/core/format';
import { isNight } from '@/core/sun';
import { aerodromeAt } from '../../rules/content';
import type { CheckoutRecord } from './record';
import { Sorties } from '../tables';

export interface LessonLines extends LogbookLines {
  lesson: number;
  date: string;
}
/** The logbook lines of every lesson flown in a checkout, in the words of its pack, the oldest first. */
export async function linesOf(record: CheckoutRecord): Promise<LessonLines[]> {
  const { head, pack, evidence } = record;
  const titles = new Map(record.programmes.flatMap((p) => p.items.map((i) => [i.id, i] as const)));
  const lines: LessonLines[] = [];
  const home = await aerodromeAt(null);
  for (const s of record.sorties) {
    const at = await aerodromeAt(s.aerodrome);
    const night = (when: string | null | undefined): boolean => when != null && isNight(when, at, pack.night.logging);
    const flown = record.landings.filter((l) => l.lesson === s.lesson);
    const landed = flown.filter((l) => l.kind !== 'go-around' && l.kind !== 'low-pass');
    // The pilot logs what the pilot flew: what was shown or taken over is the instructor's.
    const own = landed.filter((l) => l.judged.landingClass !== 'demonstration' && l.captured.intervention !== 3);
    const seen = evidence.observations.filter((o) => o.lesson === s.lesson && titles.has(o.data.itemId));
    if (flown.length === 0 && seen.length === 0) continue;
    const instructor = await Sorties.first({
      where: { id: s.id },
      pick: ['id'],
      with: { instructor: ['name', 'certificate', 'certificateUntil'] },
    });
    const count = (dark: boolean) => own.filter((l) => night(l.captured.endedAt ?? l.savedAt) === dark).length;
    const used = new Set([
      ...seen.map((o) => o.data.itemId),
      ...record.items.filter((i) => i.evidence.some((e) => flown.some((l) => l.id === e))).map((i) => i.item.id),
    ]);
    const ground = seen.filter((o) => titles.get(o.data.itemId)?.where === 'ground');
    lines.push({
      lesson: s.lesson,
      date: s.flownOn,
      ...logbookLines({
        pack: head.pack,
        date: dateText(s.flownOn),
        place: { at: at.ident, home: home.ident },
        registration: s.registration ?? head.registration,
        typeName: head.typeName,
        engines: head.sheet.engine.count,
        lesson: s.lesson,
        minutes: evidence.flights?.find((f) => f.lesson === s.lesson)?.minutes ?? null,
        groundMinutes: ground.reduce((a, o) => a + (o.data.minutes ?? 0), 0),
        takeoffs: { day: count(false), night: count(true) },
        landings: {
          day: count(false),
          night: count(true),
          fullStops: own.filter((l) => l.kind === 'full-stop').length,
          water: own.filter((l) => l.surface === 'water').length,
        },
        trained: [...used].map((id) => (titles.get(id)?.title ?? id).toLowerCase()),
        pilot: head.pilotName,
        instructor: instructor?.instructor.name ?? head.instructorName,
        certificate: instructor?.instructor.certificate ?? '',
        until: instructor?.instructor.certificateUntil ? dateText(instructor.instructor.certificateUntil) : null,
        lacks: head.opening.missing.some((k) => head.opening.demands.classRatings?.includes(k))
          ? 'class'
          : head.opening.missing.length > 0 || head.opening.pic === 'instructor'
            ? 'endorsement'
            : 'nothing',
      }),
    });
  }
  return lines;
}
