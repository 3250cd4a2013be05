export { findToday } from './find-today';
export { drawGrid } from './answers-grid';
export { drawCourse } from './room-course';
export { LiveHub } from './hub';
export { Presence } from './presence';
export { drawResponseTimes } from './response-times';
export { drawRoom } from './room-picture';
export { drawSitting } from './sitting-picture';
