import { isSameJson, pageKindSchema, type JsonObject, type PageKind, type Stylesheet } from '@typikon/core';
import type { Transaction } from 'sequelize';
import { changePages, everything, Refusal, lockPages } from './repository';

/** Page kinds and stylesheets, as an edition of them says it. */
export interface Pages {
  pageKinds: readonly PageKind[];
  stylesheets: readonly Stylesheet[];
}

/** Page kinds and stylesheets as they are worked on; null where there never were any. */
export async function pagesDraft(
  transaction: Transaction | undefined,
  isLocked: boolean,
): Promise<{ document: JsonObject; revision: number } | null> {
  if (transaction !== undefined && isLocked) await lockPages(transaction);
  const { revision, pageKinds, stylesheets } = await everything(transaction);
  if (revision === 0 && pageKinds.length === 0) return null;
  return { revision, document: documentOf({ pageKinds: pageKinds.map(without), stylesheets: stylesheets.map(without) }) };
}

/** Puts an earlier state into the rows; what is still used and was not there then is said. */
export async function putPagesBack(
  document: JsonObject,
  note: string,
  savedBy: string,
  transaction: Transaction,
): Promise<number | string> {
  await lockPages(transaction);
  const now = await everything(transaction);
  const then = pagesIn(document);
  const changed = <Row extends { id: string }>(rows: readonly Row[], current: readonly (Row & { revision: number })[]) =>
    rows.flatMap((row) => {
      const stored = current.find(({ id }) => id === row.id);
      return stored !== undefined && isSameJson(asJson(without(stored)), asJson(row))
        ? []
        : [{ ...row, revision: stored?.revision ?? null }];
    });
  const gone = (rows: readonly { id: string }[], current: readonly { id: string; revision: number }[]) =>
    current.filter(({ id }) => !rows.some((row) => row.id === id)).map(({ id, revision }) => ({ id, revision }));
  try {
    await changePages(
      {
        note: note.slice(0, 300),
        stylesheets: changed(then.stylesheets, now.stylesheets),
        pageKinds: changed(then.pageKinds, now.pageKinds),
        removed: { stylesheets: gone(then.stylesheets, now.stylesheets), pageKinds: gone(then.pageKinds, now.pageKinds) },
      },
      savedBy,
      transaction,
    );
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
  return now.revision + 1;
}

/** What an edition says; what was released before a setting was there gets its default. */
export function pagesIn(document: JsonObject): Pages {
  const { pageKinds = [], stylesheets = [] } = document as unknown as Partial<Pages>;
  return { pageKinds: pageKinds.map((kind) => pageKindSchema.parse(kind)), stylesheets };
}

const documentOf = (pages: Pages): JsonObject => asJson(pages);
const asJson = (value: unknown) => JSON.parse(JSON.stringify(value)) as JsonObject;

function without<Row extends { revision: number }>({ revision: _revision, ...row }: Row): Omit<Row, 'revision'> {
  return row;
}
