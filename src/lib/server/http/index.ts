export { clearCookie, readCookie, writeCookie } from './cookies';
export { anyone, boundDevice, coordinatorOf, device, inSession, mustBeProven, sessionFor, staff } from './allow';
export { LARGE, route } from './route';
export { orRefuse, problemResponse, refuse } from './refuse';
export { noPage, requireSession, requireStaff } from './guard';
export { ownPath } from './own-path';
export { eventStream } from './stream';
export { download } from './download';
