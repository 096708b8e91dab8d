/**
 * Structured handling attributes of a type: what a pilot's hands and eyes have to learn or to drop. Plain constants, no
 * schema library.
 */
export const ATTRIBUTES = {
  'ground-stability': { name: 'swerve on the ground', values: ['dies by itself', 'grows slowly', 'grows fast'] },
  'rudder-need': { name: 'rudder with power', values: ['little', 'clear', 'strong'] },
  'power-foot': { name: 'foot as power comes on', values: ['right', 'left'] },
  'adverse-yaw': { name: 'adverse yaw', values: ['little', 'clear', 'strong'] },
  'wing-drop': {
    name: 'wing drop at the stall',
    values: ['unload, rudder stops the yaw, then aileron', 'unload, then aileron and rudder together'],
  },
  'stall-warning': { name: 'stall warning', values: ['horn, early', 'buffet, clear', 'buffet, late', 'none'] },
  'stall-break': { name: 'at the stall', values: ['mushes', 'nose drops', 'wing drops'] },
  'pitch-force': { name: 'pitch force', values: ['light', 'medium', 'heavy'] },
  'trim-use': { name: 'trim', values: ['set once', 'at each change', 'all the time'] },
  'flap-pitch': { name: 'pitch with flap', values: ['no flap', 'nose up', 'nose down'] },
  glide: { name: 'power off over the runway', values: ['floats', 'average', 'sinks'] },
  'over-nose': { name: 'view over the nose', values: ['clear', 'partly hidden', 'blind'] },
  'flare-height': { name: 'eye height in the flare', values: ['low', 'medium', 'high'] },
  pace: { name: 'pace of the circuit', values: ['slow', 'medium', 'fast'] },
  'lever-order': {
    name: 'engine levers',
    values: ['throttle and mixture', 'throttle, propeller, mixture', 'throttle and electric propeller'],
  },
  brakes: { name: 'brakes', values: ['toe', 'heel', 'hand'] },
  gear: { name: 'wheels', values: ['fixed', 'retractable', 'up for water, down for land'] },
  'control-travel': { name: 'travel of the controls', values: ['small', 'normal', 'large'] },
  rebound: { name: 'what the gear gives back', values: ['damped', 'springs back', 'stiff'] },
  'tail-inertia': { name: 'tail', values: ['nosewheel', 'light', 'heavy'] },
  'level-picture': {
    name: 'nose in level flight',
    values: ['below the horizon', 'on the horizon', 'above the horizon'],
  },
  'fuel-system': { name: 'fuel', values: ['one tank or both', 'left or right', 'cross-feed'] },
  ignition: { name: 'ignition', values: ['magnetos', 'needs the bus'] },
  induction: { name: 'induction', values: ['carburettor heat', 'alternate air'] },
  electrics: { name: 'electrics', values: ['none or simple', 'essential bus'] },
  avionics: { name: 'instruments', values: ['dials', 'glass'] },
  protection: { name: 'envelope protection', values: ['none', 'stick force and warnings'] },
  'speed-school': { name: 'approach speed', values: ['constant at each gate', 'always falling'] },
} as const;
export type AttributeKey = keyof typeof ATTRIBUTES;
export const ATTRIBUTE_KEYS = Object.keys(ATTRIBUTES) as [AttributeKey, ...AttributeKey[]];
