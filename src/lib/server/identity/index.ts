export { noteBrowser, sharedAccounts, sharedBy } from './shared-accounts';
export type { Shared } from './shared-accounts';
export { TryLimits } from './limits';
export { actorAt, addStaff, endLinks, listStaff, saveStaff } from './staff';
export {
	clientOfRequest,
	enrol,
	listClientDevices,
	makeChallenge,
	openEnrolment,
	proofText,
	proveClient,
	readClientNote,
	withdrawClientDevice
} from './sealed';
export type { ClientDevice } from './sealed';
export { knock } from './knock';
export type { Answer } from './answer';
export { arrive, notMe, photoByNote } from './arrive';
export { deviceByToken, signInDevice, signOutDevice } from './device';
export type { KnownDevice, SignedIn } from './device';
export { hashToken, newToken, paperKey, readNote, signNote } from './tokens';
export { checkAtDoor, rehearsalNote, rehearse } from './rehearsal';
export { deviceOf, newDeviceSecret } from './device-secret';
export { digestOf, readPublicKey, RequestSignatures } from './request-signatures';
export { ownNote, readOwnNote, readTeacherNote, teacherNote } from './links';
export type { TeacherLink } from './links';
