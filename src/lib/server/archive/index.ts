export { sealArchive, archivesIn, dropLeftovers } from './seal-archive';
export type { SealedArchive, ToSeal } from './write';
export { verifyArchive } from './verify';
export { withoutNames } from './without-names';
export { isSealOf, keyPrint, readKey, sealLength, sealOf } from './seal';
