export { drawnFormulas } from './drawn-formulas';
