export { groupedTex, signsAsTex, wordsAsTex } from './signs';
