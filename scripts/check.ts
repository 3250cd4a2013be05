import { runChecks, tell } from './checks';

process.exit(tell(await runChecks()));
