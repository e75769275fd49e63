import { workerData } from 'node:worker_threads';
import { setPriority } from 'node:os';
import { Piscina, transferableSymbol, valueSymbol } from 'piscina';
import { pino } from 'pino';
import { createApp } from '../app';
import { giveBack as collect } from '../at-rest';
import { convertSome as convertTexts } from '../conversions/run';
import { connect } from '../db/connection';
import { indexSome } from '../features/repository';
import { countLikeness, likenessInputs } from '../jobs/likeness-count';
import { growDemo as grow } from '../seed/grow';
import { createSite } from '../standins/site';
import { Stage, type RequestAnswer, type RequestTask, type WorkerSettings } from './task';

/** Threads give way to the one that answers small requests (on Linux, where threads have priorities of their own). */
const LOWER_PRIORITY = 10;
if (process.platform === 'linux')
  try {
    setPriority(0, LOWER_PRIORITY);
  } catch {
    // Where it may not be set, all run alike.
  }

const settings = workerData as WorkerSettings;
const sequelize = connect(settings.database, { connections: 2 });
const log = pino({ level: 'warn' });
let stage = new Int32Array(new SharedArrayBuffer(4));
const committing = (): void => void Atomics.store(stage, 0, Stage.committing);
const apps = {
  api: createApp({ sequelize, log, siteOrigins: settings.siteOrigins, isBehind: true, committing }),
  site: createSite({ sequelize, log, applicationOrigins: settings.applicationOrigins, imagesDir: settings.imagesDir, isBehind: true }),
};

/** Answers one request; a thread has only one at a time. */
export async function answer({ app, method, url, headers, body, stage: cell }: RequestTask): Promise<RequestAnswer> {
  stage = new Int32Array(cell);
  const response = await apps[app].fetch(new Request(url, { method, headers, ...(body === null ? {} : { body }) }));
  const bytes = response.body === null ? null : await response.arrayBuffer();
  return moved({ status: response.status, headers: [...response.headers], body: bytes }, bytes);
}

/** What a profile's documents on a page kind are compared by, as one digest; null where they cannot be compared. */
export const inputs = likenessInputs;

/** Counts how alike one document is in the editor and on the page, and stores it. */
export const count = countLikeness;

/** Writes into the index what some texts hold that are not there yet; says how many those were. */
export const index = (most: number): Promise<number> => indexSome(sequelize, most);

/** Goes on with a conversion; says how many texts were done. */
export const convertSome = ({ id, most }: { id: number; most: number }): Promise<number> => convertTexts(sequelize, id, most);

/** Writes some of the composed documents of the demo that are still missing; says how many there are then. */
export const growDemo = ({ upTo, most }: { upTo: number; most: number }): Promise<number> => grow(sequelize, upTo, most);

/** Gives memory back that this thread does not need while nothing is asked. */
export const giveBack = (): void => collect();

/** A value whose bytes go over to the other thread instead of being copied. */
function moved<Value extends object>(value: Value, bytes: ArrayBuffer | null): Value {
  if (bytes === null) return value;
  return Piscina.move({
    get [transferableSymbol]() {
      return [bytes];
    },
    get [valueSymbol]() {
      return value;
    },
  }) as unknown as Value;
}
