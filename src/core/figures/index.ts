export { DOUBTFUL, figuresOf, FLAGS } from './figures';
export type { Flag, PaperFigures, QuestionFigures, SatPaper, SatQuestion } from './figures';
export { correlation, cronbachAlpha, mean, median, standardError, variance } from './statistics';
export type { Taken } from './taken';
