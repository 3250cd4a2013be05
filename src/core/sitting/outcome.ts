import type { Refusal } from './refusals';

/** What came of one command, as it is told to whoever gave it. */
export type Outcome = { sittingId: string } & ({ ok: true; changed: boolean } | { ok: false; refusal: Refusal });
