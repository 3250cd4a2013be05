export { clearCookie, readCookie, writeCookie } from './cookies';
export {
	NO_SUCH_THING,
	NOT_AT_THE_DOOR,
	NOT_YOURS,
	NOTHING_TO_PLAN,
	problem,
	readJson,
	refuse,
	SIGNED_OUT
} from './answer';
export type { Problem } from './answer';
export { allowDevice, allowSession, eventStream, requireSession, requireStaff } from './guard';
export { orNotSavedYet, orTryAgain } from './unavailable';
export { download } from './download';
