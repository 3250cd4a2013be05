import about from '../../../package.json' with { type: 'json' };

/** The version of Otium that is running, as `0.16.0`. */
export const VERSION: string = about.version;
