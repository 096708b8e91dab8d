export const NO_LIMITATIONS = {
  alone: false,
  noPassengers: false,
  crosswindKt: null,
  attitude: 'any',
  surface: 'any',
  untilHours: null,
} as const;
