import { COLUMNS } from '$core/people';
import { DEFAULT_RULES } from '$core/session';
import { makeUpInput, NINE } from './house';

const grant = { id: 'a-grant-of-mine', sittingIds: ['sit0'], what: { kind: 'minutes', minutes: 5 }, scope: 'session' };
const form = (fields: object) => {
	const data = new FormData();
	data.set('file', new File(['number,given,family\nDO-1001,Someone,Else\n'], 'people.csv'));
	data.set('asked', JSON.stringify(fields));
	return data;
};
const OF_QUESTION = { administrationId: 'winter', paperId: 'numbers', questionId: 'q1' };
const sitting = { commandId: 'command-of-mine', sittingIds: ['sit0'] };
/** What somebody sends who wants something of Quayside: a body that its route can read, with ids of that site. */
export const BODIES: Record<string, () => unknown> = {
	'POST close-out/sign': () => ({ act: 'take_back', administrationId: 'winter', siteId: 'quayside' }),
	'POST close-out/close': () => ({ administrationId: 'winter', typed: 'Winter', basis: 'x' }),
	'POST close-out/decide': () => ({ act: 'validity', sittingIds: ['sit0'], verdict: 'void', note: 'x' }),
	'POST close-out/questions': () => ({
		act: 'propose',
		...OF_QUESTION,
		id: 'corr-mine',
		correction: { kind: 'for_all' },
		reason: 'x'
	}),
	'POST close-out/marking': () => ({ act: 'mark', ...OF_QUESTION, id: 'mark-of-mine', key: 'a key', points: 1 }),
	'POST close-out/marking/plan': () => ({
		act: 'plan',
		...OF_QUESTION,
		revision: 0,
		plan: { markers: [], secondPercent: 0, tolerance: 0, rubric: [] }
	}),
	'POST close-out/results': () => ({
		act: 'release',
		id: 'release-mine',
		administrationId: 'winter',
		paperId: 'numbers',
		shows: 'points',
		fromAt: null
	}),
	'POST close-out/paper/[sitting]': () => ({ id: 'typed-of-mine', form: 1, reason: 'x', answers: [] }),
	'POST close-out/archive/kept': () => ({ answers: 1, log: null, read: [] }),
	'POST close-out/archive': () => ({
		act: 'propose',
		id: 'addendum-mine',
		administrationId: 'winter',
		number: null,
		text: 'x'
	}),
	'POST grants/foresee': () => ({ ...grant, reason: 'x' }),
	'POST grants/give': () => ({ ...grant, reason: 'x' }),
	'POST grants/reopen': () => ({ id: 'reopen-of-mine', sittingId: 'sit0', reason: 'x', minutes: 5, window: null }),
	'POST grants/owed': () => ({ act: 'offer', sittingIds: ['sit0'] }),
	'POST grants/requests': () => ({ act: 'decide', id: 'a-request', state: 'declined', note: 'x' }),
	'POST grants/fit': () => ({
		act: 'check',
		siteId: 'quayside',
		day: '2026-12-08',
		places: [{ id: 'sit0', opens: NINE, closes: NINE + 1, roomId: 'chart', proctorId: null }]
	}),
	'POST live/[id]/window': () => ({
		foresee: false,
		date: '2026-12-08',
		opens: '09:00',
		closes: '11:00',
		revision: 1,
		reason: 'x'
	}),
	'POST live/[id]/requests': () => ({ sittingId: 'sit0', what: 'other', why: 'x' }),
	'POST grants/withdraw': () => ({ id: 'a-grant', sittingId: 'sit0' }),
	'POST live/[id]/act': () => ({ ...sitting, kind: 'let_in' }),
	'POST live/[id]/door': () => ({ refusalId: 'refused', act: 'seen' }),
	'POST live/[id]/hand': () => ({ sittingIds: ['sit0'] }),
	'POST live/[id]/incidents': () => ({}),
	'DELETE live/[id]/incidents': () => ({ id: 'an-incident' }),
	'POST live/[id]/message': () => ({ ...sitting, text: 'Stop now.' }),
	'POST live/[id]/minutes': () => ({ id: 'minutes-of-mine', sittingIds: null, minutes: 5, reason: 'x' }),
	'DELETE live/[id]/minutes': () => ({ grantIds: ['a-grant'] }),
	'POST live/[id]/proctors': () => ({ staffId: 'ode', commandId: 'hand-over-1', stays: true }),
	'POST live/[id]/seat': () => ({ sittingId: 'sit0', seat: 'B1' }),
	'POST live/[id]/session': () => ({ act: 'end' }),
	'POST live/[id]/sitting/[sitting]/count': () => ({ reason: 'x' }),
	'POST papers': () => ({ title: 'Mine', siteId: 'quayside', from: null }),
	'POST papers/[id]': () => ({
		kind: 'part',
		index: 0,
		before: { title: 'Given1', draw: null },
		after: { title: 'Given2', draw: null }
	}),
	'POST papers/bank': () => ({ ids: ['q-mine'], change: { points: 3 } }),
	'PUT papers/bank/[question]': () => ({
		question: { id: 'q-mine', kind: 'short', stem: 'Given3', points: 1, topic: '', accepted: ['x'] },
		revision: 1,
		siteId: 'quayside',
		audience: 'site',
		named: []
	}),
	'POST papers/bank/[question]': () => ({ text: 'Given4' }),
	'POST papers/version/[version]': () => ({ act: 'withdraw', why: 'Given4' }),
	'POST papers/media': () => '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>',
	'POST papers/package': () => 'no package',
	'POST papers/bank/package': () => 'no package',
	'POST papers/[id]/forms': () => ({ forms: 2, each: 1 }),
	'POST papers/[id]/fill': () => ({ minutes: null }),
	'POST papers/[id]/bank': () => ({ ids: ['q-mine'] }),
	'POST papers/[id]/sheet': () => 'Question,Answer\nDeep?,yes',
	'POST papers/[id]/document': () => 'no document',
	'POST papers/[id]/freeze': () => ({ revision: 1 }),
	'PUT prepare/administration': () => ({ make: 'site', name: 'Mine', zone: 'Europe/London' }),
	'POST prepare/administration': () => ({
		id: 'winter',
		name: 'Mine',
		opensOn: null,
		closesOn: null,
		bought: null,
		sites: [],
		papers: []
	}),
	'POST prepare/clients': () => ({ siteId: 'quayside' }),
	'PUT prepare/contacts': () => ({ administrationId: 'winter', was: [], contacts: [] }),
	'POST prepare/parts': () => ({
		act: 'tick',
		administrationId: 'winter',
		stepId: 'oral',
		candidateIds: ['can0'],
		on: true,
		why: null
	}),
	'POST technical': () => ({ sessionId: 's1', task: 'reach', on: true, note: '' }),
	'POST prepare/draft': () => ({ id: 'a-draft', revision: 1, title: 'x', input: {}, added: [] }),
	'POST prepare/mail': () => ({ act: 'send', session: 's1', kind: 'candidate', addresses: null }),
	'POST prepare/networks': () => ({ id: 'wires', siteId: 'quayside', name: 'Mine', ranges: '10.0.0.0/8' }),
	'POST prepare/people': () => ({ act: 'make_group', siteId: 'quayside', name: 'Watch C' }),
	'POST prepare/people/[id]': () => ({
		act: 'change',
		change: {
			number: 'X-1',
			given: 'Mine',
			family: 'Now',
			email: '',
			birth: '',
			language: '',
			grade: '',
			userName: '',
			elsewhere: false,
			groupIds: ['watch'],
			left: false
		}
	}),
	'PUT prepare/people/[id]/photo': () => 'x',
	'PUT close-out/sitting/[sitting]/scan': () => 'x',
	'POST prepare/people/[id]/timetable': () => 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nEND:VCALENDAR\r\n',
	'POST prepare/people/import': () =>
		form({
			siteId: 'quayside',
			mapping: Object.fromEntries(Object.keys(COLUMNS).map((key) => [key, null])),
			separator: ',',
			dateOrder: null,
			makeGroups: true,
			missing: 'leave',
			schoolId: null,
			seal: null,
			groupId: null
		}),
	'POST prepare/plan': () => ({ input: makeUpInput(), editing: null }),
	'POST prepare/rooms': () => ({
		id: 'chart',
		siteId: 'quayside',
		revision: 1,
		name: 'Mine',
		rows: 1,
		perRow: 1,
		plan: { outOfUse: [], apart: [] }
	}),
	'POST prepare/rules/[id]': () => ({ name: 'Mine', note: '', revision: 1, rules: DEFAULT_RULES }),
	'POST prepare/rules/apply': () => ({ sheet: 'remote', sessions: [{ id: 's1', revision: 1 }] }),
	'POST prepare/rules/copy': () => ({ from: 'ours' }),
	'POST prepare/save': () => ({ input: makeUpInput(), edit: null }),
	'POST prepare/staff': () => ({
		id: 'dunmore',
		name: 'Mine',
		signIn: 'dunmore',
		email: '',
		password: null,
		roles: [{ role: 'proctor', siteId: 'quayside' }]
	}),
	'PUT prepare/staff': () => ({
		people: [{ name: 'Mine', signIn: 'mine', email: '' }],
		roles: [{ role: 'proctor', siteId: 'quayside' }]
	}),
	'POST prepare/[id]/call-off': () => ({ why: 'Given', tells: true }),
	'POST set-up': () => ({ act: 'place', name: 'Mine', site: '', zone: null, address: '' }),
	'POST prepare/staff/access': () => ({ act: 'take_second_step', id: 'dunmore' })
};
const params: Record<string, Record<string, string>> = {
	live: { id: 's1', sitting: 'sit0', snapshot: 'a-picture', incident: 'an-incident', file: 'a'.repeat(64) },
	'close-out': { id: 's1', administration: 'winter', session: 's1', sitting: 'sit0' },
	'grants/evidence': { id: 'a-doctors-note' },
	'papers/version': { version: 'a-version' },
	'papers/media': { file: 'a'.repeat(64) },
	'papers/bank': { question: 'q-mine' },
	papers: { id: 'a-paper' },
	'prepare/people': { id: 'can0' },
	'prepare/rules': { id: 'ours' },
	prepare: { id: 's1', what: 'register' }
};
/** What the path of a route names. */
export const paramsOf = (path: string) => Object.entries(params).find(([start]) => path.startsWith(start))?.[1] ?? {};
/** What a query may name. */
const IDS: Record<string, string> = {
	'prepare/clients': 'a-tablet',
	'prepare/networks': 'wires',
	'prepare/draft': 'a-draft'
};
export const queryOf = (path: string) =>
	`?id=${IDS[path] ?? 's1'}&site=quayside&group=watch&rooms=s1&session=s1&text=Family&format=csv&q=Family&ids=sit0`;
