export { ownPage } from './own-page';
export type { OwnPage, OwnSitting } from './own-page';
export { askFor, decide, takeBack } from './requests';
export { countRequests, requestsAbout, requestsFor } from './listed-requests';
export type { NewRequest } from './requests';
export type { Request } from './listed-requests';
