/** The views beside the landings, as one part. */
export { Airwork, Ground } from './airwork';
export { GearCheck } from './gear-check';
export { Paper } from './paper';
