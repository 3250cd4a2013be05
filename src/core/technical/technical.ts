import { counted } from '../names';
import type { SessionRules } from '../session';

/** Something to be seen to before a session, by whoever looks after rooms and devices. `ticked` is theirs to say. */
export type TechnicalTask = { key: string; stage: 'installed' | 'allowed' | 'tried'; text: string };

export type TechnicalFacts = {
	rules: SessionRules;
	/** Names of the networks from which the door is passed, as far as they exist. */
	networks: string[];
	/** Sealed clients of the site that have enrolled. */
	clients: number;
	candidates: number;
	/** Some question has sound. */
	hasSound: boolean;
};

export const STAGES = { installed: 'Installed', allowed: 'Allowed', tried: 'Tried' } as const;

/** What a session asks of rooms, devices and networks, made from its rules; nothing that they do not ask for. */
export function technicalTasks({ rules, networks, clients, candidates, hasSound }: TechnicalFacts): TechnicalTask[] {
	const { lockdown, tools } = rules;
	const isSealed = lockdown.level === 'sealed';
	const camera = lockdown.snapshotSeconds ?? rules.elsewhere.snapshotSeconds;
	const tasks: (TechnicalTask | false)[] = [
		isSealed && {
			key: 'client',
			stage: 'installed',
			text: `The sealed client, version ${lockdown.clientVersion} or newer, on ${counted(candidates, 'device')} (${clients} have enrolled at this site).`
		},
		!isSealed && {
			key: 'browser',
			stage: 'installed',
			text: `A current browser on ${counted(candidates, 'device')}${lockdown.level === 'watched' ? ', that allows full screen' : ''}.`
		},
		hasSound && {
			key: 'sound',
			stage: 'installed',
			text: 'Sound: headphones at each seat, and the volume up before the lock closes.'
		},
		camera !== null && {
			key: 'camera',
			stage: 'allowed',
			text: 'The camera is allowed for this site in each browser.'
		},
		{
			key: 'reach',
			stage: 'allowed',
			text: 'This server can be reached from each device, without a sign-in page of the network in between.'
		},
		networks.length > 0 && {
			key: 'networks',
			stage: 'allowed',
			text: `Devices are on ${networks.join(' or ')}: the door opens from nowhere else.`
		},
		lockdown.sites.length > 0 && {
			key: 'sites',
			stage: 'allowed',
			text: `Allowed besides: ${lockdown.sites.join(', ')}. Everything else may be blocked.`
		},
		lockdown.printing && { key: 'printing', stage: 'allowed', text: 'The paper may be printed: a printer is at hand.' },
		!lockdown.tablets &&
			lockdown.level !== 'open' && {
				key: 'tablets',
				stage: 'allowed',
				text: 'No tablets: laptops or desktops for everyone.'
			},
		tools.calculator !== 'none' && {
			key: 'screen',
			stage: 'tried',
			text: `The paper and its ${tools.calculator} calculator fit the screens of the room.`
		},
		{ key: 'rehearsed', stage: 'tried', text: 'A device of each kind was rehearsed in the room.' }
	];
	return tasks.filter((task) => task !== false);
}
