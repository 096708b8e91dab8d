/** Runs before the first paint; the theme is kept on the device. Fly starts in *sun*. */
export const THEME_SCRIPT = `try{var t=localStorage.getItem(location.pathname.startsWith('/fly')?'jeito-theme-fly':'jeito-theme')||(location.pathname.startsWith('/fly')?'sun':'day');document.documentElement.setAttribute('data-bs-theme',t)}catch(e){}`;
