import type { BriefChoices } from '@/domain/brief';
import type { House } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import { dateText, downTo, fixed, hoursText, localText, metresUp, upTo, windText, withUnit } from '../format';
import { sheetOn } from '../sheet';
import { WIND_GOOD_FOR_MIN, ageMinutes } from '../wind';
import type { BriefResult } from './brief';
import { type StripPicture, pictureStrip, sightAnswers, viewOf, withMargin } from '../sightpicture';
import { crosswindSentences, dialError, gateConfiguration, goAroundTriggers, oneEngineLines, seatLacks } from './words';

export interface CardSection {
  title: string;
  lines: string[];
}
/** One A5 card, both sides, as plain words: the screen, the print view and the PDF all print these same strings. */
export interface Card {
  title: string;
  line: string;
  revision: string;
  warnings: string[];
  gates: { name: string; speed: string; height: string; altimeter: string; configuration: string; power: string }[];
  /** What will be seen: first gate on final, last look, threshold, touchdown; empty when the view is not measured. */
  pictures: StripPicture[];
  front: CardSection[];
  back: CardSection[];
  tally: { columns: { head: string; codes: string }[]; rows: number };
  caution: string;
}
export interface CardFacts {
  pilotName: string;
  registration: string;
  lesson: number;
  briefVersion: number;
  savedAt: string;
  typeVersion: number;
  sheet: TypeSheet;
  house: House;
  choices: BriefChoices;
  result: BriefResult;
  /** When it is printed: a wind too old by then gives no verdict on paper either. */
  nowIso: string;
  /** The aerodrome's: every time on the card is its local time. */
  timeZone: string;
}

/**
 * The kneeboard card of a stored brief. Same numbers as the screen, to the last digit.
 * @returns rows and sections of the card, in words
 */
export function kneeboardCard(f: CardFacts): Card {
  const { choices, result, house } = f;
  const sheet = sheetOn(f.sheet, result.surface ?? 'land') ?? f.sheet;
  const { unit } = result;
  const said = crosswindSentences(result, choices.runwayEnd, f.pilotName.split(' ')[0] ?? f.pilotName);
  const windMin = choices.wind ? ageMinutes(choices.wind.observedAt, f.nowIso) : null;
  const stale = windMin !== null && windMin > WIND_GOOD_FOR_MIN;
  const need = (name: string, r: BriefResult['takeoff']) =>
    r === null
      ? `${name}: no runway chosen`
      : r.words
        ? `${name}: ${r.words}`
        : `${name} ${metresUp(r.need.over50M)} over 50 ft${r.edge ? ' (table\u2019s edge used)' : ''}${r.need.marginM === null ? '' : r.need.marginM >= 0 ? `, ${metresUp(Math.floor(r.need.marginM))} in hand` : `, ${metresUp(-r.need.marginM)} too short`}`;
  return {
    title: `${f.registration} ${sheet.name}`,
    line: `${f.pilotName}, lesson ${f.lesson}, ${dateText(choices.flownOn)}`,
    revision: `Brief version ${f.briefVersion}, saved ${localText(f.savedAt, f.timeZone)}; type sheet version ${f.typeVersion}, ${sheet.revision}`,
    warnings: result.warnings,
    gates: result.gates.map((g) => ({
      name: g.name,
      speed: g.target === null ? 'no speed' : `${withUnit(g.target, unit)}${g.beyondTable ? '*' : ''}`,
      height: withUnit(g.heightFt, 'ft'),
      altimeter: `${g.altimeterFt} QNH`,
      configuration: gateConfiguration(g, sheet.flapSteps.length > 1),
      power: g.power,
    })),
    pictures: cardPictures(f),
    front: [
      {
        title: `Runway ${choices.runwayEnd}${choices.aerodrome ? ` at ${choices.aerodrome}` : ''}`,
        lines: [
          choices.wind
            ? `Wind ${windText(choices.wind)} ${choices.wind.reference}, ${localText(choices.wind.observedAt, f.timeZone)}`
            : 'No wind entered',
          said.lead,
          stale ? 'Verdict: look again. This wind is too old for one.' : said.verdict,
          need('Take-off', result.takeoff),
          need('Landing', result.landing),
        ],
      },
      {
        title: 'Go-around triggers',
        lines: [...goAroundTriggers(result, house, sheet), `Then: ${sheet.goAroundFlow.join(', ')}`],
      },
      ...(result.oneEngine
        ? [{ title: 'On one engine', lines: oneEngineLines(result.oneEngine, choices.runwayEnd) }]
        : []),
      ...habitSection(result),
      {
        title: 'Today',
        lines: [
          `Mass ${withUnit(result.massKg, 'kg')} of ${withUnit(result.maxMassKg, 'kg')}${result.loading?.trim ? `; trim ${fixed(result.loading.trim.dual, 1)} ${result.loading.trim.unit} with both, ${fixed(result.loading.trim.solo, 1)} solo` : ''}`,
          `Fuel ${withUnit(choices.fuelL, 'L')}, ${hoursText(result.fuel.endurance.usableMin)} to the reserve; ${result.fuel.circuits.circuits} circuits fit, the ${result.fuel.circuits.limitedBy} limits`,
          `Stall ${result.vsToday.map((v) => `${upTo(v.dial)}\u00a0${unit} flap ${v.flapDeg}\u00b0${v.beyondTable ? '*' : ''}`).join(', ')}; best glide ${upTo(result.bestGlideDial)}\u00a0${unit}; Va ${downTo(result.vaDial)}\u00a0${unit}${result.vsToday.some((v) => v.beyondTable) ? ' (* beyond the dial\u2019s error table)' : ''}`,
          ...[dialError(result, sheet)].filter((t) => t !== null),
          result.air.densityAltFt === null
            ? `Density altitude: ${result.air.missing.join(' and ')} not known`
            : `Density altitude ${withUnit(Math.round(result.air.densityAltFt / 10) * 10, 'ft')}`,
          ...(choices.focus ? [`Focus: ${choices.focus}`] : []),
          ...(choices.plan && choices.plan.length > 0
            ? [`Plan: ${choices.plan.map((b) => `${b.title} ${b.minutes} min`).join('; ')}`]
            : []),
        ],
      },
    ],
    back: [
      {
        title: 'Exchange of control',
        lines: [`${house.exchangeWords.join(', ')}: hands and feet`, `Five on final: ${house.finalChecks.join(', ')}`],
      },
      ...(seatLacks(sheet).length > 0 ? [{ title: 'Instructor’s seat', lines: seatLacks(sheet) }] : []),
      ...sheet.flows.slice(0, 3).map((x) => ({ title: x.name, lines: [x.steps.join(', ')] })),
      { title: 'Out', lines: sheet.exits.map((e) => e.text) },
      ...(choices.second
        ? [
            {
              title: 'Two aeroplanes',
              lines: [
                `${choices.second.registration}: ${choices.second.leads === 'this' ? 'we lead' : 'the other leads'}${choices.second.position ? `, ${choices.second.position}` : ''}`,
                `Meet ${choices.second.place || 'as agreed'}${choices.second.heightFt === null ? '' : ` at ${withUnit(choices.second.heightFt, 'ft')}`}${choices.second.at ? `, ${choices.second.at}` : ''}`,
                choices.second.breakS === null
                  ? 'Break interval as agreed'
                  : `Break ${choices.second.breakS} s, ${metresUp(result.breakM)} apart`,
              ],
            },
          ]
        : []),
      ...(choices.models && choices.models.length > 0
        ? [{ title: 'From the lab: a model, not the flight manual', lines: choices.models.map((m) => m.answer) }]
        : []),
      ...choices.layout.own.map((o) => ({ title: o.title, lines: [o.text] })),
    ],
    tally: { rows: 10, columns: TALLY },
    caution: 'The flight manual, placards, local law and the instructor in the seat outrank every number here.',
  };
}

/** Height down to which the aim point is wanted beside or over the nose, as the lab starts from. */
const LAST_LOOK_FT = 150;

function cardPictures({ sheet, result, choices }: CardFacts): StripPicture[] {
  const view = viewOf(sheet, result.eyeHeightM ?? null, result.air.sigma ?? 1);
  const used = result.runways.find((r) => r.ident === choices.runwayEnd);
  if (!view || !used) return [];
  const path = {
    gates: view.gates,
    aimPointM: view.aimPointM,
    slopeDeg: null,
    offsetDeg: 0,
    side: used.circuit ?? 'left',
    downToFt: LAST_LOOK_FT,
    crosswindKt: used.crosswindKt,
  };
  const least = sightAnswers(view.profile, withMargin(view.profile), path, null).leastOffsetDeg ?? 0;
  return pictureStrip(
    view,
    { ...path, offsetDeg: Math.ceil(least * 10) / 10 },
    {
      lengthM: used.lengthM,
      widthM: used.widthM,
      aimPointM: view.aimPointM,
      slopePct: used.slopePct,
      landmark: result.landmark,
    },
  );
}

/** The three habits that matter most; on the card they are commands, without their numbers. */
function habitSection(result: BriefResult): CardSection[] {
  const first = (result.habits ?? []).filter((h) => h.action === 'drop').slice(0, 3);
  return first.length === 0 ? [] : [{ title: 'Drop the old habit', lines: first.map((h) => `${h.name}: ${h.cue}`) }];
}

/** The columns of the paper tally with the codes the capture screen uses. */
const TALLY: Card['tally']['columns'] = [
  { head: 'kind', codes: 'F full stop, T touch and go, G go-around, L low pass' },
  { head: 'meant', codes: '3 three-point, W wheel' },
  { head: 'touched', codes: '3 three-point, W mains first, T tail first, F flat, N nose first' },
  { head: 'along', codes: 'S short, B in the box, L long, V very long' },
  { head: 'across', codes: '2L 1L 0 1R 2R' },
  { head: 'drift', codes: '0, slight or marked with side: sL mR' },
  { head: 'crab', codes: '0, slight or marked with side: sL mR' },
  { head: 'swing', codes: '0, S small, T late, B large with side: SL' },
  { head: 'bounce', codes: 'count and H held, P power, X pushed, G went around' },
  {
    head: 'whose',
    codes: `0 ${say('own')}, 1 ${say('prompted')}, 2 assisted, 3 instructor took over, D demonstration`,
  },
];
