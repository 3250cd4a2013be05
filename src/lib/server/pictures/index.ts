export { deleteOldPhotos, MOST_PHOTO_BYTES, PHOTO_KEPT_MS, readPhoto, savePhoto } from './photos';
export { deleteOldSnapshots, keepSnapshot, MOST_SNAPSHOT_BYTES, readSnapshot, snapshotsOf } from './snapshots';
export type { Snapshot } from './snapshots';
export { asPng, drawForPaper, reEncode } from './re-encode';
