import packed from '../../../package.json';

/** The release that runs, as its package names it. */
export const release: string = packed.version;
