import { runChecks } from './checks';

const { passed, failed } = await runChecks();
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed > 0 ? 1 : 0);
