/** What this room's commands say, by code. */
import { SHARED_WORDS, teller } from '../floor/sentences';

export const HANGAR_WORDS = {
  ...SHARED_WORDS,
  'chief-holds': () => 'A school hold is the chief’s to place.',
  'staff-ground': () => 'Staff ground an aeroplane.',
  'aeroplane-unknown': () => 'This aeroplane is not in the hangar.',
  'chief-releases': () => 'The chief records the return to service.',
  'not-found-reload': () => 'Not found, or you do not have access. Open the page again.',
  'ended-meanwhile': ({ name }: { name: string }) => `This was ended by ${name} meanwhile.`,
  'chief-edits': () => 'The chief instructor edits type sheets and airframes.',
  'saved-meanwhile': ({ version }: { version: number }) =>
    `Version ${version} was saved meanwhile. Your entries stay here: open the newest in another tab, compare, and save again from it.`,
  'type-code': ({ code }: { code: string }) => `The code of this type is ${code}; it does not change.`,
  'draft-gone': () => 'This was saved or discarded meanwhile, maybe on another machine. Go back to the hangar.',
  'draft-others': ({ by }: { by: string }) =>
    `${by} changed this sheet meanwhile. What changed is shown now: look at it and save again.`,
  'draft-field': ({ path }: { path: string }) => `${path} is no field of a type sheet, or its value has another form.`,
  'draft-newer': ({ version }: { version: number }) =>
    `Version ${version} was saved meanwhile. Reload the page: your changes stay and can be put on it.`,
  'draft-large': () => 'This field holds too much. Enter less.',
  'code-taken': ({ code }: { code: string }) =>
    `There is a type with the code ${code}. Give this one another code, or edit that type.`,
  'registration-taken': ({ registration }: { registration: string }) =>
    `${registration} is in the hangar already. Open its type to change it.`,
  'trials-not-enough': () => 'These trials do not support a speed yet: the page says what is missing.',
  'no-gate-with-flap': ({ flapDeg }: { flapDeg: number }) =>
    `No gate of the approach schedule is flown with flap ${flapDeg}\u00b0: add one first, or choose another flap.`,
  'type-unknown': () => 'This type is not in the hangar.',
  'registration-fixed': ({ registration }: { registration: string }) =>
    `The registration is ${registration}; it does not change.`,
  'setting-gone': () => 'Not found. It may have been undone in the aeroplane: reload the page.',
  'decided-meanwhile': ({ decision, name }: { decision: string; name: string }) =>
    `This was ${decision} by ${name} meanwhile.`,
};
export const told = teller(HANGAR_WORDS);
