export { clearCookie, readCookie, writeCookie } from './cookies';
export {
	anyone,
	boundDevice,
	coordinatorOf,
	device,
	inSession,
	LARGE,
	mustBeProven,
	orRefuse,
	problemResponse,
	refuse,
	route,
	sessionFor,
	staff
} from './route';
export { noPage, requireSession, requireStaff } from './guard';
export { ownPath } from './own-path';
export { eventStream } from './stream';
export { download } from './download';
