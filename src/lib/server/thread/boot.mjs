// Starts a thread. The server is bundled into one program, so a thread's own part is read from the sources as they lie.
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
await import(workerData.entry);
