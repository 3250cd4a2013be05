export { clearCookie, readCookie, writeCookie } from './cookies';
export {
	anyone,
	boundDevice,
	coordinatorOf,
	coordinatorOfAll,
	device,
	inSession,
	mustBeProven,
	personFor,
	sessionFor,
	staff
} from './allow';
export { LARGE, route } from './route';
export { mustBeSigned, mustMatch } from './signed';
export { orRefuse, problemResponse, refuse } from './refuse';
export { noPage, requireSession, requireStaff } from './guard';
export { ownPath } from './own-path';
export { eventStream } from './stream';
export { download } from './download';
