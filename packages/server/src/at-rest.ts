import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/** So long nothing was asked before memory is given back, in milliseconds. */
const AFTER_MS = 2000;
/** Fewer requests than this leave nothing behind that is worth a collection. */
const AFTER_REQUESTS = 200;

/** Collects what this thread does not need any more and gives the room back to the system. It takes some tens of milliseconds. */
export function giveBack(): void {
  setFlagsFromString('--expose-gc');
  (runInNewContext('gc') as () => void)();
}

/**
 * Gives memory back when work has ended. An engine keeps what it once needed until it is busy again, so that a server which
 * was asked much stays large although it rests.
 */
export class Rest {
  private requests = 0;
  private timer: NodeJS.Timeout | null = null;

  /** @param act what gives memory back */
  constructor(
    private readonly act: () => unknown,
    private readonly afterMs = AFTER_MS,
    private readonly afterRequests = AFTER_REQUESTS,
  ) {}

  /** A request has come: whatever rest there was is over. */
  readonly touch = (): void => {
    this.requests++;
    if (this.timer === null) {
      if (this.requests < this.afterRequests) return;
      this.timer = setTimeout(() => this.rest(), this.afterMs);
      this.timer.unref();
    } else this.timer.refresh();
  };

  private rest(): void {
    this.timer = null;
    this.requests = 0;
    this.act();
  }
}
