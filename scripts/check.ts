import { runChecks } from './checks';
import { tell } from './test-reports';

process.exit(tell(await runChecks()));
