export { INCIDENT_KINDS, incidentInWords } from './incident';
export type { Incident, IncidentKind } from './incident';
