import { typedDate } from '@/core/schedule';
import { readReport } from '@/core/wind';
import type { BriefChoices } from '@/domain/brief';
import type { LabNote } from '@/domain/lab';
import { type Layout, completeLayout } from './arrange';
import type { Weather } from '@/domain/weather';
import { type WindFields, windToFields } from './wind-entry';

/** What stands in the fields of a brief: as typed, so that nothing half typed is lost. */
export interface BriefValues extends WindFields {
  flownOn: string;
  /** Code of the aerodrome; empty = home. */
  aerodrome: string;
  runwayEnd: string;
  /** Chosen by hand or saved: it no longer follows the wind. */
  runwayByHand: boolean;
  maxFlap: string;
  fuelL: number;
  pilotKg: number;
  instructorKg: number;
  rearKg: number;
  baggageKg: number;
  gustSchool: BriefChoices['gustSchool'];
  intended: BriefChoices['intended'];
  instructorLimit: string;
  focus: string;
  qnh: string;
  oat: string;
  wet: boolean;
  night: boolean;
  bookingMin: number;
  two: boolean;
  secondReg: string;
  secondLeads: 'this' | 'other';
  secondPosition: string;
  secondPlace: string;
  secondFt: string;
  secondAt: string;
  secondBreak: string;
  layout: Layout;
  models: LabNote[];
}

const text = (n: number | null): string => (n === null ? '' : String(n));
const numberOf = (t: string): number | null =>
  t.trim() === '' || !Number.isFinite(Number(t.replace(',', '.'))) ? null : Number(t.replace(',', '.'));

/** What is known of the weather at one aerodrome. */
export type StationNow = Weather<unknown>;
export interface ReportAir {
  /** Who reports; null where nothing could be read. */
  station: string | null;
  qnhHpa: number | null;
  oatC: number | null;
  trend: string | null;
}
/** What the report itself says of altimeter setting, temperature and the trend, which changes no number here. */
export function reportAir(v: Pick<WindFields, 'windKind' | 'report'>): ReportAir {
  const read = v.windKind === 'report' && v.report.trim() !== '' ? readReport(v.report) : null;
  if (!read?.ok) return { station: null, qnhHpa: null, oatC: null, trend: null };
  const { station, qnhHpa, temperatureC, trend } = read.report;
  const unread = trend && trend.unread.length > 0 ? ` Not read: ${trend.unread.join(' ')}.` : '';
  return {
    station,
    qnhHpa,
    oatC: temperatureC,
    trend: trend && trend.text !== 'NOSIG' ? `Trend, not in these numbers: ${trend.text}.${unread}` : null,
  };
}

/** The fields a brief opens with; what its report says itself is left to the report. */
export function valuesOf(choices: BriefChoices, saved: boolean, timeZone: string): BriefValues {
  const fields = windToFields(choices.wind, timeZone);
  const fromReport = reportAir(fields);
  const { second } = choices;
  return {
    ...choices,
    ...fields,
    aerodrome: choices.aerodrome ?? '',
    runwayByHand: saved,
    maxFlap: text(choices.maxFlapDeg),
    instructorLimit: text(choices.instructorLimitKt),
    qnh: choices.qnhHpa === fromReport.qnhHpa ? '' : text(choices.qnhHpa),
    oat: choices.oatC === fromReport.oatC ? '' : text(choices.oatC),
    wet: choices.surfaceState === 'wet',
    layout: completeLayout(choices.layout),
    models: choices.models ?? [],
    two: second !== null,
    secondReg: second?.registration ?? '',
    secondLeads: second?.leads ?? 'this',
    secondPosition: second?.position ?? '',
    secondPlace: second?.place ?? '',
    secondFt: text(second?.heightFt ?? null),
    secondAt: second?.at ?? '',
    secondBreak: text(second?.breakS ?? null),
  };
}

const typed = (n: number, fallback: number): number => (Number.isFinite(n) ? n : fallback);

/**
 * What is briefed now: the fields read, and where a number is not one yet, what it was.
 * @param before the choices the page was opened with
 */
export function choicesOf(
  v: BriefValues,
  before: BriefChoices,
  wind: BriefChoices['wind'],
  air: ReportAir,
): BriefChoices {
  return {
    flownOn: typedDate(v.flownOn) === null ? before.flownOn : v.flownOn,
    ...(v.aerodrome === '' ? {} : { aerodrome: v.aerodrome }),
    runwayEnd: v.runwayEnd,
    wind,
    maxFlapDeg: v.maxFlap === '' ? null : Number(v.maxFlap),
    gustSchool: v.gustSchool,
    speedSchool: before.speedSchool,
    intended: v.intended,
    focus: v.focus,
    fuelL: typed(v.fuelL, before.fuelL),
    pilotKg: typed(v.pilotKg, before.pilotKg),
    instructorKg: typed(v.instructorKg, before.instructorKg),
    rearKg: typed(v.rearKg, 0),
    baggageKg: typed(v.baggageKg, 0),
    instructorLimitKt: numberOf(v.instructorLimit),
    qnhHpa: numberOf(v.qnh) ?? air.qnhHpa,
    oatC: numberOf(v.oat) ?? air.oatC,
    surfaceState: v.wet ? 'wet' : 'dry',
    night: v.night,
    bookingMin: typed(v.bookingMin, before.bookingMin),
    second: v.two
      ? {
          registration: v.secondReg,
          leads: v.secondLeads,
          position: v.secondPosition,
          place: v.secondPlace,
          heightFt: numberOf(v.secondFt),
          at: v.secondAt,
          breakS: numberOf(v.secondBreak),
        }
      : null,
    layout: v.layout,
    ...(before.plan ? { plan: before.plan } : {}),
    ...(v.models.length > 0 ? { models: v.models } : {}),
  };
}

/** The field on the page of a choice whose name is another. */
export const FIELD_OF: Readonly<Record<string, string>> = {
  instructorLimitKt: 'instructorLimit',
  qnhHpa: 'qnh',
  oatC: 'oat',
  'second.breakS': 'secondBreak',
  'second.heightFt': 'secondFt',
};
