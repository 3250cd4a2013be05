/** Named by the types of a component that nothing here uses. */
export type ApexOptions = never;
declare const none: null;
export default none;
