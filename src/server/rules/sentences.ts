/** What this room's commands say, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const RULES_WORDS = {
  ...SHARED_WORDS,
  'chief-edits': () => 'The chief instructor edits rules, programmes and standards.',
  'saved-meanwhile': ({ version }: { version: number }) =>
    `Version ${version} was saved meanwhile. Your entries stay here: open the newest in another tab, compare, and save again from it.`,
  'no-crosswind-limit': ({ group, entry, broad }: { group: string; entry: string; broad: string }) =>
    `No crosswind limit for ${group}, which the hangar has. Add an entry named ${entry}, or ${broad} for all of that mass and gear.`,
  'programme-name': ({ key }: { key: string }) => `This programme is called ${key}; its name does not change.`,
  'programme-goal': ({ key }: { key: string }) => `Goal and pack of ${key} do not change: they are its name.`,
  'item-twice': ({ id }: { id: string }) => `Two items are called ${id}. Give this one a name of its own.`,
  'no-prerequisite': ({ id }: { id: string }) => `There is no other item ${id} in this programme.`,
  circle: () => 'Items wait for each other in a circle: remove one of the prerequisites.',
  'hours-end-before-start': () => 'End of the booking day must be after its start.',
  'step-of-day': () => 'Choose a step that divides the day: 5, 10, 15, 20, 30 or 60 min.',
  'aerodrome-name': ({ key }: { key: string }) => `This aerodrome is called ${key}; its name does not change.`,
  'no-runway': () => 'An aerodrome has at least one runway.',
  latitude: () => 'Give a latitude from -90 to 90, north positive.',
  longitude: () => 'Give a longitude from -180 to 180, east positive.',
  variation: () => 'Give the variation in degrees, west negative.',
  'web-address': () => 'Give an address that begins with http:// or https://, without a name or password in it.',
  'time-zone': () => 'This is not a time zone. Write it like Europe/Lisbon.',
  'runway-length': () => 'Give a length from 50 to 6000 m.',
  'runway-width': () => 'Give a width from 3 to 200 m.',
  'both-elevations': () => 'Give the elevation of both ends, or of neither: the slope is computed from the two.',
  'end-twice': ({ ident }: { ident: string }) => `Two ends are called ${ident}.`,
  'true-bearing': () => 'Give the true bearing, above 0 to 360; north is 360.',
  landmark: () => 'The landmark is beside the runway: metres past this threshold.',
  'opposite-ends': () => 'The two ends point in opposite directions, within one degree.',
  'pack-name': ({ key }: { key: string }) => `This pack is called ${key}; its name does not change.`,
  'goal-twice': ({ goal }: { goal: string }) => `The goal ${goal} is there twice.`,
  'goal-unknown': ({ goal }: { goal: string }) => `This pack has no goal ${goal}.`,
};
export const told = teller(RULES_WORDS);
