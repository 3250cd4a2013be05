export { heldBy, Lines } from './lines';
