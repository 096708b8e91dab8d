/** What a landing needs now and then, as one part: each part of its own costs the first load its name. */
export { GoAround } from './go-around';
export { LandingPanel } from './landing-panel';
export { More } from './more';
export { SoFar } from './so-far';
