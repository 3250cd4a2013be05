/**
 * For tests and SECURITY.md: in which state a route that is open to others than staff does something, and by what it is
 * limited. A route without a line here fails `routes-listed.test.ts`.
 */
export const ROUTE_FACTS: Record<string, { state: string; quota: string }> = {
	'GET /health': { state: 'always', quota: 'none: says that the server lives' },
	'POST /health': { state: 'always', quota: 'none: writes one row and says whether it could' },
	'POST /sign-out': { state: 'ends the sign-in of the cookie', quota: 'none' },
	'GET /sign-in/oidc': { state: 'where the house has a service', quota: 'by address, `passkey`' },
	'POST /sign-in/passkey': { state: 'a challenge of this sign-in', quota: 'by address, `passkey`' },
	'POST /sign-in/second': { state: 'waits for its second step', quota: 'wrong tries of the account' },
	'POST /sign-in/enrol': { state: 'waits for a second step to be set up', quota: 'the sign-in' },
	'POST /sign-in/new-password': { state: 'a link, or waits for a password', quota: 'by address, `link`' },
	'POST /sign-in/forgot': { state: 'always', quota: 'by account, and by address, `forgot`' },
	'POST /mine/[note]': { state: 'the link is good', quota: 'by address, `request`; few open at a time' },
	'POST /ask/[note]': { state: 'the link is good', quota: 'by address, `request`; few open at a time' },
	'POST /verify': { state: 'always', quota: 'by address, `receipt`' },
	'POST /sit/api/knock': { state: 'a code that holds', quota: 'wrong tries for these details; late beyond 300 misses' },
	'POST /sit/api/arrive': {
		state: 'the door of the note’s session',
		quota: 'by browser, `arrivals`; the note, ten minutes'
	},
	'POST /sit/api/not-me': { state: 'a note of this browser', quota: 'by browser, `arrivals`' },
	'GET /sit/api/photo': { state: 'a note of this browser', quota: 'the note, ten minutes' },
	'POST /sit/api/challenge': { state: 'always', quota: 'by address, `challenge`' },
	'POST /sit/api/prove': { state: 'a challenge, once', quota: 'the challenge' },
	'POST /sit/api/enrol': { state: 'a code that staff made, once', quota: 'by address, `enrol`' },
	'GET /sit/api/rehearse': { state: 'always', quota: 'none: says the time' },
	'POST /sit/api/rehearse': { state: 'a link or a slip, else nobody is told', quota: 'by address, `rehearsal`' },
	'POST /sit/api/leave': { state: 'ends the sign-in of the cookie', quota: 'the sign-in' },
	'POST /sit/api/leftovers': {
		state: 'as answers; from strangers it waits for a person',
		quota: 'bytes of the sitting; by address, `leftovers`'
	},
	'GET /sit/practice/[paper]/media/[file]': { state: 'a paper for practice', quota: 'none: from memory' },
	'POST /sit/practice/[paper]': { state: 'a paper for practice', quota: 'by address, `practice`' },
	'POST /sit/hand/[code]': { state: 'at work; a code of ten minutes', quota: 'files of the sitting' },
	'GET /sit/api/page': { state: 'at work', quota: 'requests of the device' },
	'GET /sit/api/paper': { state: 'at work', quota: 'requests of the device' },
	'GET /sit/api/media/[file]': { state: 'at work, of a question it may see', quota: 'requests of the device' },
	'GET /sit/api/files': { state: 'any', quota: 'requests of the device' },
	'GET /sit/api/files/[id]': { state: 'any, of its own sitting', quota: 'requests of the device' },
	'POST /sit/api/files/code': { state: 'at work', quota: 'requests of the device' },
	'POST /sit/api/files/of/[question]': { state: 'at work', quota: 'files of the sitting' },
	'GET /sit/api/own-photo': { state: 'where the rules show it', quota: 'requests of the device' },
	'GET /sit/api/picture': { state: 'any; freed: until it has ended', quota: 'requests of the device' },
	'GET /sit/api/receipt': { state: 'handed in', quota: 'requests of the device' },
	'GET /sit/api/review': { state: 'as the rules let it', quota: 'requests of the device' },
	'GET /sit/api/stream': { state: 'any; freed: until another is bound', quota: 'twelve lines' },
	'POST /sit/api/again': { state: 'ended, and another attempt is left', quota: 'commands of the sitting' },
	'POST /sit/api/answers': { state: 'begun; else kept without counting', quota: 'bytes of the sitting' },
	'POST /sit/api/beat': { state: 'any; freed: until another is bound', quota: 'requests of the device' },
	'POST /sit/api/begin': { state: 'let in, after the opening', quota: 'commands of the sitting; wrong words' },
	'POST /sit/api/break': { state: 'at work, a pause is left', quota: 'pauses that were granted' },
	'POST /sit/api/hand': { state: 'any', quota: 'hands of the sitting' },
	'POST /sit/api/hand-in': { state: 'begun', quota: 'commands of the sitting; wrong words' },
	'POST /sit/api/lapses': { state: 'any', quota: 'lapses of the sitting, by kind' },
	'POST /sit/api/messages': { state: 'any', quota: 'requests of the device' },
	'POST /sit/api/played': { state: 'at work', quota: 'requests of the device' },
	'POST /sit/api/ready': { state: 'any', quota: 'commands of the sitting' },
	'POST /sit/api/snapshot': { state: 'at work, where the rules ask for it', quota: 'pictures of the sitting' },
	// Pages that look at a cookie or a link, and the one form that a page takes.
	'page /sign-in': { state: 'always; its form signs in', quota: 'wrong tries of the account' },
	'page /sign-in/oidc/back': { state: 'a note of this browser, ten minutes', quota: 'the service’s code, once' },
	'page /sign-in/second': { state: 'waits for its second step', quota: 'none' },
	'page /sign-in/enrol': { state: 'waits for a second step to be set up', quota: 'none' },
	'page /sign-in/forgot': { state: 'always', quota: 'none: says whether mail leaves' },
	'page /sign-in/new-password': { state: 'a link, or waits for a password', quota: 'none' },
	'page /mine/[note]': { state: 'the link is good', quota: 'none' },
	'page /ask/[note]': { state: 'the link is good', quota: 'none' },
	'page /sit': { state: 'any: says which sitting, and nothing of it', quota: 'none' },
	'page /sit/hand/[code]': { state: 'a code of ten minutes', quota: 'none' },
	'page /sit/practice': { state: 'papers for practice', quota: 'none' },
	'page /sit/practice/[paper]': { state: 'a paper for practice', quota: 'none' }
};

/** Routes that are made without the wrapper: who may ask them, and what proves it. */
export const BARE: Record<string, { who: string; secret: string; by: string }> = {
	'GET /health': { who: 'anyone', secret: 'none', by: 'nothing' },
	'POST /health': { who: 'anyone', secret: 'none', by: 'nothing' },
	'POST /sign-out': { who: 'staff', secret: 'cookie `staff`', by: 'the cookie' },
	'GET /sign-in/oidc': { who: 'anyone', secret: 'none', by: 'nothing' }
};
