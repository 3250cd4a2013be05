/** A candidate's row of the answers grid: each question in the order in which they see it. */
export type GridRow = { sittingId: string; cells: { answered: boolean; marked: boolean; changed: boolean }[] };

/** A minute of the room. */
export type CoursePoint = { at: number; working: number; done: number; answers: number };
