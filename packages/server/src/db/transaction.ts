import { ConnectionError, DatabaseError, type Sequelize, type Transaction } from 'sequelize';

/**
 * MariaDB: a deadlock was found, a lock was waited for too long, or what is to be locked has changed since it was read (from 11.6.2
 * on); either way nothing of the transaction is left.
 */
const IN_THE_WAY = [1213, 1205, 1020];
const MOST_TRIES = 8;

/** Two changes wanted the same at once again and again. Nothing was saved. */
export class Contended extends Error {}

/** The database was lost while a change was being committed: nobody knows whether it was saved. */
export class OutcomeUnknown extends Error {}

/**
 * Runs an act in one transaction, all of it or nothing, and again where another one was in its way.
 *
 * @param act may run several times; what it does beside the database must bear that
 * @throws Contended where others were in the way every time; OutcomeUnknown where the database was lost at the commit
 */
export async function inTransaction<Result>(
  sequelize: Sequelize,
  act: (transaction: Transaction) => Promise<Result>,
  hooks: { committing?: () => void } = {},
): Promise<Result> {
  for (let tries = 1; ; tries++) {
    let isCommitting = false;
    try {
      return await sequelize.transaction(async (transaction) => {
        const result = await act(transaction);
        isCommitting = true;
        hooks.committing?.();
        return result;
      });
    } catch (error) {
      if (isCommitting && isLost(error))
        throw new OutcomeUnknown('The database was lost while the change was being committed.', { cause: error });
      if (!isInTheWay(error)) throw error;
      if (tries === MOST_TRIES) throw new Contended('Other changes of the same were in the way every time.', { cause: error });
      await new Promise((done) => setTimeout(done, Math.random() * 20 * 2 ** tries));
    }
  }
}

function isInTheWay(error: unknown): boolean {
  return error instanceof DatabaseError && IN_THE_WAY.includes((error.original as { errno?: number }).errno ?? 0);
}

const LOST =
  /ECONNREFUSED|ECONNRESET|EPIPE|socket has unexpectedly been closed|server has gone away|Connection (timeout|closed)|cannot execute new commands|Server shutdown in progress|Connection was killed/i;

/** Whether an error says that the database cannot be reached any more. */
export function isLost(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const cause = error instanceof DatabaseError ? error.original : error;
  return cause instanceof Error && LOST.test(`${cause.message} ${(cause as { code?: string }).code ?? ''}`);
}
