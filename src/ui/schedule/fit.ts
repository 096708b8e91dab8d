/** The shape of a wind's fit to a lesson. */
export const FIT: Record<string, 'within' | 'edge' | 'outside' | 'not-seen'> = {
  wanted: 'within',
  fits: 'within',
  light: 'edge',
  'too-much': 'outside',
  unknown: 'not-seen',
};
