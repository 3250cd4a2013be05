import fc from 'fast-check';

/**
 * Property tests try the same each time, so that what passes once passes again, on every machine. `./otium test --fuzz
 * MINUTES` looks further with seeds of its own.
 */
fc.configureGlobal({ seed: Number(process.env.OTIUM_FUZZ_SEED ?? 20_261_208) });
