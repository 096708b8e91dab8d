/**
 * Drag, glide and climb from a type sheet's own numbers. SI inside; knots, feet per minute and degrees outside. Method:
 * parabolic polar.
 */
export * from './polar';
