export { TryLimits } from './limits';
export { actorAt, addStaff, listStaff, saveStaff, signIn, signOut, staffByToken } from './staff';
export type { SignIn } from './staff';
export {
	listSiteKeys,
	makeChallenge,
	makeSiteKey,
	proofOf,
	proveClient,
	readClientNote,
	withdrawSiteKey
} from './sealed';
export type { SiteKey } from './sealed';
export { arrive, deviceByToken, knock, notMe, photoByNote, signInDevice } from './candidate';
export type { Answer, Recognised, SignedIn } from './candidate';
export { hashToken, paperKey } from './tokens';
export { checkAtDoor, rehearse } from './rehearsal';
