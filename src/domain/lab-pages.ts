/** The pages of the lab that are models, by their name in the address. */
export const LAB_PAGES = ['ground', 'take-off', 'touch', 'crosswind', 'side-picture', 'slip', 'slow-approach'] as const;
export type LabPage = (typeof LAB_PAGES)[number];
export const LAB_TITLES: Record<LabPage, string> = {
  ground: 'Straight or swerving',
  'take-off': 'Take-off roll',
  touch: 'The touch',
  crosswind: 'Crosswind',
  'side-picture': 'Side picture',
  slip: 'Slip',
  'slow-approach': 'Slow approach',
};
