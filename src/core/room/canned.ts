/** What a proctor says most often: calm, and never blaming. */
export const CANNED_MESSAGES = [
	'Please take your time and read each question.',
	'Please stay on this page.',
	'I am coming to you.',
	'Please speak to me after you have handed in.',
	'Please plug in your device.',
	'Ten minutes more for everyone.'
] as const;
