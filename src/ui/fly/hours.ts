/** Minutes as hours and minutes, `1:05`; a dash where they are not known. */
export const hm = (min: number | null): string =>
  min === null
    ? '–'
    : `${min < 0 ? '-' : ''}${Math.floor(Math.abs(min) / 60)}:${String(Math.floor(Math.abs(min) % 60)).padStart(2, '0')}`;
