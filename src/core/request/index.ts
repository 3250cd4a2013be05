export {
	ASKED_AS,
	decisionLetter,
	MOST_A_DAY,
	MOST_OPEN,
	REQUEST_STATES,
	REQUEST_WHAT,
	REQUEST_WHATS
} from './request';
export type { AskedAs, Decision, RequestState, RequestWhat } from './request';
