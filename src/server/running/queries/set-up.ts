import { canonicalText } from '@/core/ledger';
import { House } from '@/domain/programme';
import { Users } from '../../account/tables';
import { unconfirmed } from '@/core/sheet';
import { Airframes, Types, TypeVersions } from '../../hangar/tables';
import { homeZone, newestContent } from '../../rules/content';
import { ContentVersions } from '../../rules/tables';

/** Of a school that begins: beyond so many versions of sheets nobody is asked whether there is a first. */
const LOOKED_AT = 40;

export interface SetUpStep {
  key: 'chief' | 'place' | 'rules' | 'weather' | 'type' | 'aeroplane' | 'people';
  name: string;
  /** What it is for, and what does not work before it. */
  what: string;
  href: string | null;
  done: boolean;
}

/** Whether somebody has put the school's own: a pack chosen or a weather address entered is another step. */
async function ownRules(now: House): Promise<boolean> {
  const shipped = await ContentVersions.first({
    where: { kind: 'house', key: 'house', origin: 'product' },
    pick: ['body'],
    order: ['-version'],
  });
  const rules = ({ school: _school, homePack: _pack, weather: _weather, ...rest }: House) => canonicalText(rest);
  return shipped !== null && rules(House.parse(JSON.parse(shipped.body))) !== rules(now);
}

/** What a school needs before its first checkout, in the order it is asked for, with what is there already. */
export async function setUpSteps(): Promise<SetUpStep[]> {
  const house = await newestContent('house', 'house');
  const [type, frame, users] = [
    await Types.first({ where: {}, pick: ['code'] }),
    await Airframes.first({ where: {}, pick: ['id'] }),
    await Users.find({ where: {}, pick: ['id'] }),
  ];
  const sheets = await TypeVersions.find({ where: {}, pick: ['sheet'], order: ['-version'], limit: LOOKED_AT });
  return [
    { key: 'chief', name: 'Chief instructor', what: 'You.', href: null, done: users.length > 0 },
    {
      key: 'place',
      name: 'School and aerodrome',
      what: 'Runways, position, time zone, the rules you fly by. Nothing is computed without it.',
      href: '/settings',
      done: (await homeZone()) !== null,
    },
    {
      key: 'rules',
      name: 'School rules',
      what: 'Crosswind limits, go-around triggers, who may be alone: sensible values stand there until you put yours.',
      href: '/rules/house/house',
      done: house !== null && (await ownRules(house.body)),
    },
    {
      key: 'weather',
      name: 'Weather',
      what: 'An address that answers with a METAR; without one, reports are pasted or typed.',
      href: '/settings',
      done: house !== null && house.body.weather.reportUrl !== '',
    },
    {
      key: 'type',
      name: 'First type',
      what: 'A type sheet from your flight manual, with every number of it confirmed. Nothing can be briefed before.',
      href: type ? `/hangar/${type.code}` : '/hangar/new',
      done: sheets.length > 0 && sheets.some((v) => unconfirmed(JSON.parse(v.sheet)).length === 0),
    },
    {
      key: 'aeroplane',
      name: 'First aeroplane',
      what: 'Its registration and what is its own.',
      href: type ? `/hangar/${type.code}` : '/hangar',
      done: frame !== null,
    },
    {
      key: 'people',
      name: 'People',
      what: 'Instructors and pilots, with what they hold.',
      href: '/people/new',
      done: users.length > 1,
    },
  ];
}
