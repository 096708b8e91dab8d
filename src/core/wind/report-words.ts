/** The catalogue of reading a weather report: what is wrong with it and what to do. */
import { type Coded, coder, sentence } from '@/domain/coded';

interface Group {
  group: string;
}
export const REPORT_WORDS = {
  nothing: () => 'Paste a report, for example: METAR ZPAV 241420Z 26011G17KT CAVOK 18/07 Q1016',
  station: ({ group }: Group) =>
    `"${group}" is not a four-letter station. A report starts with the station, then the time, for example ZPAV 241420Z.`,
  time: ({ group }: Group) =>
    `"${group || '(nothing)'}" is not a time. Write day, hour and minute in UTC, for example 241420Z.`,
  nil: () => 'This report says NIL: nothing was observed. Type the wind you see.',
  'second-wind': ({ group }: Group) =>
    `A second wind, "${group}". Which one was observed? Remove the other from the report.`,
  arc: ({ group }: Group) => `"${group}" is not a direction range after a wind.`,
  altimeter: ({ group }: Group) => `"${group}" is not a plausible altimeter setting.`,
  'second-altimeter': ({ group }: Group) => `A second altimeter setting, "${group}", that contradicts the first.`,
  'second-temperature': ({ group }: Group) => `A second temperature, "${group}". Remove one of them.`,
  unread: ({ group }: Group) => `The group "${group}" cannot be read. Check it against the original, or remove it.`,
  'no-wind': () => 'No wind group found. It looks like 26011G17KT.',
  'wind-not-measured': ({ group }: Group) =>
    `"${group}" says the wind was not measured. Type the wind you see instead.`,
  calm: ({ group, unit }: Group & { unit: string }) =>
    `"${group}" is not a wind: calm is written 00000${unit}, north is 360.`,
  gust: ({ group }: Group) => `In "${group}" the gust is not above the mean wind.`,
  direction: ({ group, deg }: Group & { deg: number }) =>
    `"${group}" has a direction of ${deg}. Directions run from 000 to 360.`,
  tens: ({ group, dir }: Group & { dir: string }) =>
    `"${group}" has a direction of ${dir}. Reports give tens of degrees.`,
} as const;
/** What is wrong with a report. */
export type ReportWrong = Coded<typeof REPORT_WORDS>;
export const reportWrong = coder(REPORT_WORDS);
/** What is wrong with a report, as a sentence. */
export const reportWords = (why: ReportWrong): string => sentence(REPORT_WORDS, why);
