/** The shell listens for these; any component may ask. */
export const openPalette = (): void => void window.dispatchEvent(new Event('jeito:palette'));
/** Carries whether sections are to fold or to open. */
export const FOLD_ALL = 'jeito:fold-all';
export const foldAll = (fold: boolean): void => void window.dispatchEvent(new CustomEvent(FOLD_ALL, { detail: fold }));
export const openHelp = (): void => void window.dispatchEvent(new Event('jeito:help'));

/** Single-key shortcuts act only when focus is on the page or a drawing: native keys win on a control. */
export function onControl(target: EventTarget | null): boolean {
  return (
    target instanceof Element &&
    target.closest('input, select, textarea, button, a, summary, [contenteditable], [role="dialog"]') !== null
  );
}
export const shortcutsOff = (): boolean => localStorage.getItem('jeito-shortcuts') === 'off';
