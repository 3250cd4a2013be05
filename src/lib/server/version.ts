import { version } from '../../../package.json';

/** The version of Otium that is running, as `0.15.0`. */
export const VERSION: string = version;
