/**
 * What the pilot sees over the nose: visibility, the way down, the drawn picture. Degrees and metres; method in each
 * file.
 */
export * from './nose';
export * from './eye';
export * from './path';
export * from './scene';
export * from './sheet-view';
export * from './side';
