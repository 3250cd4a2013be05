import { z } from 'zod';

/** A time of day as fields send it, on the clock of its place. */
export const timeOfDay = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time, like 09:30.');
/** A day as fields send it. */
export const day = z.iso.date('Give a date, like 2026-12-08.');
/** The day on which a window closes; null: the one on which it opens. */
export const lastDay = day.nullable().default(null);
