export { ownPage } from './own-page';
export type { OwnPage, OwnSitting } from './own-page';
export { askFor, countRequests, decide, requestsAbout, requestsFor, takeBack } from './requests';
export type { NewRequest, Request } from './requests';
