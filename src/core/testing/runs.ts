/** Under `./otium test --fuzz` each property is tried on so many times as many cases. */
const TIMES = Number(process.env.OTIUM_FUZZ_TIMES ?? 1);

/** How many cases a property is tried on: few each time, many where somebody looks further. */
export const runs = (usually: number): number => usually * TIMES;
