import { describe, expect, it } from 'vitest';
import { INCIDENT_KINDS, incidentInWords, type IncidentKind } from '.';

describe('what is about to be told', () => {
	it.each([
		[
			{ kind: 'alarm', minutes: 7, people: 28 },
			28,
			'Alarm or evacuation, 7 minutes given back, everyone in this room (28)'
		],
		[{ kind: 'power', minutes: 1, people: 1 }, 28, 'Power or network, 1 minute given back, one candidate'],
		[{ kind: 'conduct', minutes: 0, people: 2 }, 28, 'Conduct, 2 candidates'],
		[{ kind: 'noise', minutes: 0, people: 0 }, 28, 'Noise or disturbance, nobody by name'],
		[{ kind: 'noise', minutes: 0, people: 0 }, 0, 'Noise or disturbance, nobody by name']
	] as const)('%o in a room of %d', (incident, inRoom, words) => expect(incidentInWords(incident, inRoom)).toBe(words));

	it('has a name for every kind, each its own', () => {
		const names = Object.values(INCIDENT_KINDS);
		expect(new Set(names).size).toBe(names.length);
		for (const kind of Object.keys(INCIDENT_KINDS) as IncidentKind[])
			expect(incidentInWords({ kind, minutes: 0, people: 1 }, 9)).toMatch(/^[A-Z].*, one candidate$/);
	});
});
