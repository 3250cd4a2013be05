export { INCIDENT_DECISIONS, proposeValidity, VALIDITIES, VALIDITY_NAMES } from './validity';
export type { IncidentDecision, ProposedValidity, Reason, SittingFacts, Validity } from './validity';
