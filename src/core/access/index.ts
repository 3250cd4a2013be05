export { isTablet } from './tablet';
export {
	DOOR_CODE_ALPHABET,
	DOOR_CODE_BITS,
	DOOR_CODE_LENGTH,
	doorCodeFrom,
	readDoorCode,
	sameSecret,
	showDoorCode,
	showSlip,
	SLIP_LENGTH,
	slipCodeFrom
} from './door-code';
export { foldName, foldNumber, sameGiven, sameName } from './identity';
export { ENTRY_REFUSALS, judgeEntry } from './entry';
export type { Entry, EntryRefusal } from './entry';
export {
	ACT_WORDS,
	ACTS,
	holds,
	may,
	mayAnywhere,
	ROLE_NAMES,
	ROLE_WORDS,
	rolesFor,
	roleFor,
	sitesWith,
	STAFF_ROLES,
	SUPERVISING
} from './permission';
export type { Act, HeldRole, Place, StaffMember, StaffRole } from './permission';
export { clientAddress, isInside, networkOf, readRanges } from './network';
export type { ReadRanges } from './network';
export { isTurningCode, showTurningCode, turningCode, turningKeyFrom, TURNING_DIGITS, turnsAt } from './turning-code';
export { clientFor } from './client';
export type { ProvenClient } from './client';
export { isAtLeast } from './version';
export { CLOCK_TOLERANCE_MS, DEVICE_CHECKS, isDeviceReady, powerCheck, SLOW_LINE_MS } from './device-check';
export type { CheckResult, DeviceCheck, DeviceNeeds } from './device-check';
export {
	contentDigest,
	readNonce,
	readSignature,
	showNonce,
	signatureBase,
	signatureHeaders
} from './request-signature';
export type { Nonce, SignedRequest } from './request-signature';
export { clientSignatureBase, clientSignatureParts, readClientSignature } from './client-signature';
export { browserName } from './browser-name';
export { LEAST_PASSWORD, passwordFault } from './password';
export { awaited, CONFIRMED_FOR_MS, IDLE_MINUTES, SIGN_IN_RULES } from './second-step';
export type { Awaited, SignInRules } from './second-step';
