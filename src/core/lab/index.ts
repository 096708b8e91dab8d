/**
 * The pages of the lab as data: settings in, a sentence, a picture and a table out. Draws nothing and knows no page; every
 * sentence is in its catalogue.
 */
export * from './model';
export * from './figure';
export * from './lab-words';
export * from './pages';
export * from './from-finding';
export * from './foot-map';
