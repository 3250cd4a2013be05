export { saveSignInRules, signInRules } from './rules';
export {
	actorOf,
	confirmSession,
	endSessions,
	goOn,
	noteWhoIsThere,
	openSession,
	sessionsOf,
	signOut,
	staffByToken,
	type From
} from './sessions';
export type { Opened, SessionLine, StaffSession } from './sessions';
export {
	askForLink,
	changePassword,
	faultOfPassword,
	invite,
	isOwnPassword,
	ownerOfLink,
	signIn,
	useLink
} from './password';
export type { SignIn } from './password';
export {
	newRecoveryCodes,
	offerApp,
	passByCode,
	removeApp,
	removeSecondSteps,
	secondStepsOf,
	takeApp,
	takeSecondStepsAway,
	whoHasSecondStep
} from './second-step';
export type { SecondSteps } from './second-step';
export { askToMake, askToUse, passkeysOf, removePasskey, takePasskey, whoUsed, type Asking } from './passkeys';
export type { Passkey } from './passkeys';
export { askOidc, oidcName, oidcService, takeOidc } from './oidc';
export type { OidcAsked } from './oidc';
