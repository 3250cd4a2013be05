export { ContentFiles } from './content-files';
export { keepMedium, mediumResponse, MOST_MEDIUM_BYTES, readMedium } from './media';
export { isCounted, notePlayed, playedIn } from './plays';
