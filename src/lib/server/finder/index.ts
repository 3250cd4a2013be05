export { findAnything } from './find-anything';
