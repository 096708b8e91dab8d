import type { ATTRIBUTES, AttributeKey } from './handling';

type Attributes = { [K in AttributeKey]?: (typeof ATTRIBUTES)[K]['values'][number] };
const landplane = { gear: 'fixed', electrics: 'none or simple', protection: 'none' } as const satisfies Attributes;

/**
 * Kinds of aeroplane, for what was flown elsewhere in types the hangar does not have. Only what holds for nearly every
 * aeroplane of the kind stands here: an attribute left out says nothing about a habit.
 */
export const KINDS = {
  'light-nosewheel': {
    name: 'light nosewheel',
    hint: 'two seats or a light four-seater, fixed propeller and gear',
    attributes: {
      ...landplane,
      'ground-stability': 'dies by itself',
      'rudder-need': 'little',
      'adverse-yaw': 'little',
      'stall-warning': 'horn, early',
      'stall-break': 'mushes',
      'pitch-force': 'light',
      'over-nose': 'clear',
      'flare-height': 'medium',
      pace: 'slow',
      'lever-order': 'throttle and mixture',
      brakes: 'toe',
      'tail-inertia': 'nosewheel',
      rebound: 'damped',
      'level-picture': 'below the horizon',
      ignition: 'magnetos',
    },
  },
  'touring-nosewheel': {
    name: 'heavy nosewheel',
    hint: 'four to six seats, constant-speed propeller, fixed gear',
    attributes: {
      ...landplane,
      'ground-stability': 'dies by itself',
      'rudder-need': 'clear',
      'adverse-yaw': 'little',
      'stall-warning': 'horn, early',
      'pitch-force': 'medium',
      'trim-use': 'at each change',
      'over-nose': 'clear',
      pace: 'medium',
      'lever-order': 'throttle, propeller, mixture',
      brakes: 'toe',
      'tail-inertia': 'nosewheel',
      rebound: 'damped',
    },
  },
  'retractable-single': {
    name: 'retractable single',
    hint: 'nosewheel, constant-speed propeller, wheels that come up',
    attributes: {
      'ground-stability': 'dies by itself',
      'rudder-need': 'clear',
      'stall-warning': 'horn, early',
      'pitch-force': 'medium',
      'trim-use': 'at each change',
      'over-nose': 'clear',
      pace: 'medium',
      'lever-order': 'throttle, propeller, mixture',
      brakes: 'toe',
      gear: 'retractable',
      'tail-inertia': 'nosewheel',
      rebound: 'damped',
    },
  },
  'light-tailwheel': {
    name: 'light tailwheel',
    hint: 'two seats, fabric or light metal, up to about 110 hp',
    attributes: {
      ...landplane,
      'ground-stability': 'grows slowly',
      'rudder-need': 'clear',
      'adverse-yaw': 'strong',
      'stall-break': 'mushes',
      'pitch-force': 'light',
      'over-nose': 'partly hidden',
      pace: 'slow',
      'lever-order': 'throttle and mixture',
      'tail-inertia': 'light',
      rebound: 'springs back',
      ignition: 'magnetos',
    },
  },
  'heavy-tailwheel': {
    name: 'heavy tailwheel',
    hint: 'four seats or a powerful engine, constant-speed propeller',
    attributes: {
      'ground-stability': 'grows fast',
      'rudder-need': 'strong',
      'pitch-force': 'heavy',
      'trim-use': 'all the time',
      'over-nose': 'partly hidden',
      pace: 'medium',
      'lever-order': 'throttle, propeller, mixture',
      'tail-inertia': 'heavy',
    },
  },
  'light-twin': {
    name: 'light twin',
    hint: 'two piston engines, wheels that come up',
    attributes: {
      'ground-stability': 'dies by itself',
      'rudder-need': 'clear',
      'stall-warning': 'horn, early',
      'pitch-force': 'medium',
      'trim-use': 'at each change',
      'over-nose': 'clear',
      pace: 'fast',
      'lever-order': 'throttle, propeller, mixture',
      brakes: 'toe',
      gear: 'retractable',
      'tail-inertia': 'nosewheel',
    },
  },
  floatplane: {
    name: 'floatplane',
    hint: 'straight floats, one engine',
    attributes: {
      'adverse-yaw': 'clear',
      'over-nose': 'partly hidden',
      'flare-height': 'high',
      pace: 'slow',
      gear: 'fixed',
      protection: 'none',
    },
  },
  amphibian: {
    name: 'amphibian',
    hint: 'wheels up for water, down for land',
    attributes: { gear: 'up for water, down for land', pace: 'medium', protection: 'none' },
  },
  sailplane: {
    name: 'sailplane',
    hint: 'and motor gliders of long wings',
    attributes: {
      'rudder-need': 'little',
      'adverse-yaw': 'strong',
      glide: 'floats',
      'pitch-force': 'light',
      'over-nose': 'clear',
      'flare-height': 'low',
      protection: 'none',
    },
  },
  transport: {
    name: 'airliner or business jet',
    hint: 'two pilots, turbine engines',
    attributes: {
      'ground-stability': 'dies by itself',
      'rudder-need': 'little',
      'adverse-yaw': 'little',
      'over-nose': 'clear',
      'flare-height': 'high',
      pace: 'fast',
      brakes: 'toe',
      gear: 'retractable',
      'tail-inertia': 'nosewheel',
      electrics: 'essential bus',
      avionics: 'glass',
    },
  },
} as const satisfies Record<string, { name: string; hint: string; attributes: Attributes }>;
export type Kind = keyof typeof KINDS;
export const KIND_KEYS = Object.keys(KINDS) as [Kind, ...Kind[]];

const PREFIX = 'kind:';
/** How hours of a kind are kept beside those of a type. */
export const kindCode = (kind: Kind): string => `${PREFIX}${kind}`;
/** The kind hours were entered for; null = they are of a type. */
export const kindOf = (code: string): Kind | null => KIND_KEYS.find((k) => code === kindCode(k)) ?? null;
