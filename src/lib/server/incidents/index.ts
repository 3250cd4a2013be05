export { attachmentOf, incidentsOf, tellIncident, withdrawIncident } from './incidents';
export type { NewIncident } from './incidents';
