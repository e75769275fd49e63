import { parentPort, workerData } from 'node:worker_threads';
import { call } from './call';
import { countInputIn } from './files';
import type { ThreadData } from './supervise';

// Runs the command that was called, and tells the thread that watches over it how it ended.
const { args, bytes } = workerData as ThreadData;
countInputIn(new Float64Array(bytes));
parentPort!.postMessage(call(args));
