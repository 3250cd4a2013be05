export { clearCookie, readCookie, writeCookie } from './cookies';
export {
	anyone,
	anyoneWith,
	boundDevice,
	listeningDevice,
	confirmed,
	coordinatorOf,
	coordinatorOfAll,
	device,
	deviceOrStranger,
	inSession,
	mustBeConfirmed,
	mustBeProven,
	oneself,
	ownPageOf,
	personFor,
	sessionFor,
	staff,
	teacher
} from './allow';
export { administrationAsked } from './administration-asked';
export { LARGE, route } from './route';
export { mustBeSigned, mustMatch } from './signed';
export { orRefuse, problemResponse, refuse } from './refuse';
export { noPage, requireSession, requireStaff, STEPS } from './guard';
export { knownBrowser } from './known-browser';
export { ownPath } from './own-path';
export { eventStream } from './stream';
export { download, downloadHeaders } from './download';
