export { faultsOf, MANIFEST, PEOPLE, SIGNATURE } from './manifest';
export type { ArchivedFile, ArchiveVerdict, Manifest } from './manifest';
