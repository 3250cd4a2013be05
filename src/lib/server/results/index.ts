export { administrationReport, distribution, sessionReport } from './report';
export { resultLines } from './lines';
export type { ResultLine } from './lines';
export { callBack, postReleases, RELEASE_SHOWS, releaseResults, releasesOf } from './release';
export type { Release, ReleaseRule, ReleaseShows } from './release';
export { ownResults } from './own-results';
export type { OwnResult } from './own-results';
export { resultSlips } from './slips';
export { jsonLines, oneRosterZip, qtiResultsZip, resultsTable } from './exports';
