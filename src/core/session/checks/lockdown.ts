import type { SessionFacts } from '../facts';
import type { Finding, Fix } from '../finding';

/** What would make a protection less than it looks, or shut candidates out. */
export function checkLockdown({
	rules,
	networks,
	siteHasClients,
	withoutClient,
	kind,
	elsewhere
}: SessionFacts): Finding[] {
	const { lockdown, review, admission, door, startWord, timing } = rules;
	const found: Finding[] = [];
	const push = (
		code: string,
		level: Finding['level'],
		title: string,
		message: string,
		fixes: Fix[] = [],
		field: Finding['field'] = 'lockdown'
	) => found.push({ code, level, field, title, message, fixes });

	if (lockdown.level === 'sealed' && !siteHasClients)
		push(
			'no_key',
			'block',
			'No client could prove itself.',
			'No device of the site has enrolled. Enrol them under Sealed clients, or choose another lockdown.',
			[{ text: 'watched instead', set: { 'rules.lockdown.level': 'watched' } }]
		);
	if (lockdown.level !== 'open' && lockdown.onLeaving === 'hand_in')
		push(
			'K6',
			'warn',
			'A lost connection ends a sitting.',
			'Leaving hands in, and a device that fails looks like one that left.',
			[{ text: 'hold instead', set: { 'rules.lockdown.onLeaving': 'hold' } }]
		);
	if (rules.comingBack === 'never')
		push(
			'K6_back',
			'warn',
			'A failing device ends a sitting.',
			'Whoever closes or reloads the paper is handed in, and a browser that crashes looks the same.',
			[{ text: 'the proctor’s release instead', set: { 'rules.comingBack': 'released' } }]
		);
	if (lockdown.level !== 'open' && !lockdown.alsoForReview && review.shows !== 'nothing')
		push('K19', 'warn', 'The review is open.', 'Questions can be copied when results are looked at.', [
			{ text: 'lock the review', set: { 'rules.lockdown.alsoForReview': true } }
		]);
	if (lockdown.level === 'sealed' && (lockdown.sites.length > 0 || lockdown.printing))
		push(
			'K20',
			'warn',
			'The lock has gaps.',
			[
				lockdown.sites.length > 0 ? `${lockdown.sites.join(', ')} may be opened` : '',
				lockdown.printing ? 'printing is allowed' : ''
			]
				.filter(Boolean)
				.join('; ') + '.',
			[{ text: 'close it', set: { 'rules.lockdown.sites': [], 'rules.lockdown.printing': false } }]
		);
	if (lockdown.level === 'sealed' && (lockdown.tablets || withoutClient > 0))
		push(
			'K21',
			lockdown.tablets ? 'warn' : 'info',
			'Not every device can.',
			withoutClient > 0
				? `${withoutClient} ${withoutClient === 1 ? 'candidate’s last check had' : 'candidates’ last checks had'} no sealed client.`
				: 'Tablets are allowed, but no sealed client runs on them.',
			lockdown.tablets ? [{ text: 'no tablets', set: { 'rules.lockdown.tablets': false } }] : []
		);
	if (lockdown.snapshotSeconds !== null)
		push('K25', 'info', 'A camera is needed.', 'Each device needs a camera; the rehearsal shows who has none.', [
			{ text: 'no snapshots', set: { 'rules.lockdown.snapshotSeconds': null } }
		]);
	if (admission === 'automatic' && startWord)
		push(
			'K23',
			'info',
			'A start word without a room.',
			'Admission is automatic, so the start word must be sent to everyone and adds little.',
			[{ text: 'no start word', set: { startWord: null, 'rules.startWord': null } }],
			'door'
		);
	if (admission === 'automatic' && door.networks.length > 0)
		push(
			'K24',
			'block',
			'Remote candidates shut out.',
			`Admission is automatic, but only from ${networks.named.map((one) => one.name).join(' and ') || 'a network that is gone'}.`,
			[
				{ text: 'from anywhere', set: { 'rules.door.networks': [] } },
				{ text: 'admission by the proctor', set: { 'rules.admission': 'proctor' } }
			],
			'door'
		);
	if (networks.lost > 0)
		push(
			'lost_network',
			'block',
			'A network is gone.',
			'The rules name a network that no longer exists: nobody could enter from it.',
			[{ text: 'only those that exist', set: { 'rules.door.networks': networks.named.map((one) => one.id) } }],
			'door'
		);
	if (kind === 'live' && lockdown.level === 'open' && admission === 'automatic' && timing.doorOpensMinutes > 60)
		push(
			'K31',
			'block',
			'Can be taken at home.',
			'The code is known long before, nothing is locked and nobody checks who comes in.',
			[
				{ text: 'admission by the proctor', set: { 'rules.admission': 'proctor' } },
				{ text: 'watched', set: { 'rules.lockdown.level': 'watched' } }
			],
			'door'
		);
	// A slip that is printed beside changes nothing, as long as number and name open the door as well.
	const elsewhereAlone = elsewhere > 0 && admission !== 'automatic' && rules.elsewhere.admission === 'automatic';
	if (door.identity === 'number_and_family' && (admission === 'automatic' || elsewhereAlone))
		push(
			'K41',
			kind === 'rehearsal' ? 'info' : 'warn',
			'Anyone could sit for someone else.',
			`Admission ${elsewhereAlone ? 'elsewhere ' : ''}is automatic for anyone who types a number and a family name, and classmates know both: somebody else could sit, or hand in, in their place.`,
			[
				{ text: 'ask for slips', set: { 'rules.door.identity': 'slip', 'rules.door.slips': true } },
				{
					text: 'admission by the proctor',
					set: elsewhereAlone ? { 'rules.elsewhere.admission': 'proctor' } : { 'rules.admission': 'proctor' }
				}
			],
			'door'
		);
	if (door.identity === 'slip' && !door.slips)
		push(
			'no_slips',
			'block',
			'Nobody has a slip.',
			'Candidates are asked for their slip, but slips are off.',
			[
				{ text: 'print slips', set: { 'rules.door.slips': true } },
				{ text: 'ask for number and family name', set: { 'rules.door.identity': 'number_and_family' } }
			],
			'door'
		);
	if (lockdown.level === 'sealed')
		push(
			'K40',
			'info',
			'Before the day.',
			'A network’s own sign-in page stops the sealed client: sign devices in to it first. The rehearsal shows whether they get through.'
		);
	return found;
}
