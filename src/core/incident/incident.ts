import { counted } from '../names';
/** What can happen that must be told. */
export const INCIDENT_KINDS = {
	alarm: 'Alarm or evacuation',
	power: 'Power or network',
	device: 'Device fault',
	noise: 'Noise or disturbance',
	illness: 'Illness',
	conduct: 'Conduct',
	material: 'Material not allowed',
	paper: 'Fault in the paper',
	identity: 'Doubt about identity',
	other: 'Something else'
} as const;
export type IncidentKind = keyof typeof INCIDENT_KINDS;

/** Something that happened, as it is told. */
export type Incident = {
	id: string;
	kind: IncidentKind;
	happenedAt: number;
	note: string;
	/** What was done about it. */
	done: string;
	/** Working time given back to the people in it; 0: none. */
	minutes: number;
	people: { sittingId: string; name: string }[];
	attachment: string | null;
	toldBy: string;
	/** The account of whoever told it: theirs to take back. */
	tellerId: string;
	toldAt: number;
};

/** "Alarm or evacuation, 7 minutes, everyone in this room": what is about to be told, in one line. */
export function incidentInWords(
	incident: Pick<Incident, 'kind' | 'minutes'> & { people: number },
	inRoom: number
): string {
	const who =
		incident.people === 0
			? 'nobody by name'
			: incident.people === inRoom
				? `everyone in this room (${inRoom})`
				: incident.people === 1
					? 'one candidate'
					: counted(incident.people, 'candidate');
	const time =
		incident.minutes > 0 ? `${incident.minutes} ${incident.minutes === 1 ? 'minute' : 'minutes'} given back, ` : '';
	return `${INCIDENT_KINDS[incident.kind]}, ${time}${who}`;
}
