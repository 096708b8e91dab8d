import { gearMassGroup, ofGroup } from '@/core/plan';
import type { RuleBook } from '@/core/recency';
import type { House, RulePack } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { derived } from '../../floor/derived';
import { hangar } from '../../hangar/queries/hangar';
import { Airframes, AirframeVersions, Types, TypeVersions } from '../../hangar/tables';
import { newestContent } from '../../rules/content';
import { ContentVersions } from '../../rules/tables';

/** What a pack calls the right to fly a tailwheel. */
const TAILWHEEL_KIND: Record<RulePack['key'], string> = { us: 'tailwheel', eu: 'TW', au: 'AU-tailwheel' };

export interface HouseRules {
  house: House;
  pack: RulePack;
  rulebook: RuleBook;
  types: Map<string, { sheet: TypeSheet; name: string; intervalDays: number | null }>;
}
/** The house's rules, the pack it lives under, and the hangar's types, as they stand now. */
export const houseRules = derived({
  name: 'people.rules',
  dependsOn: [ContentVersions, Types, TypeVersions, Airframes, AirframeVersions],
  key: () => '',
  read: readHouseRules,
});
async function readHouseRules(): Promise<HouseRules> {
  const house = await newestContent('house', 'house');
  if (!house) throw new Error('no house rules are set up in this data folder');
  const pack = await newestContent('pack', house.body.homePack);
  if (!pack) throw new Error(`no rule pack ${house.body.homePack}`);
  const intervals = Object.fromEntries(house.body.signing.intervals.map((i) => [i.of, i.days]));
  const types = new Map(
    (await hangar()).map((t) => [
      t.code,
      {
        sheet: t.sheet,
        name: t.sheet.name,
        intervalDays: intervals[t.code] ?? ofGroup(intervals, gearMassGroup(t.sheet)) ?? null,
      },
    ]),
  );
  return {
    house: house.body,
    pack: pack.body,
    rulebook: {
      recency: pack.body.recency,
      tailwheel: TAILWHEEL_KIND[pack.body.key],
      dated: pack.body.dated,
      teach: house.body.signing.teach,
      intervalSource: house.body.signing.source,
    },
    types,
  };
}
