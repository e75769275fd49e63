import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** What is done on the way of a version to readers. */
export type PublishingStep = 'asked' | 'approved' | 'sent-back' | 'withdrawn' | 'remarked' | 'hidden';

export interface DoneStep {
  step: PublishingStep;
  revision: number;
  note: string;
  at: Date;
  /** The person, by id; empty for nobody known. */
  by: string;
}

/** So many steps are told. */
const MOST_STEPS = 50;

/** What was done with a document so far, the latest first. */
export function stepsOf(sequelize: Sequelize, document: string): Promise<DoneStep[]> {
  return sequelize.query<DoneStep>(
    `SELECT step, revision, note, done_at AS at, done_by AS \`by\` FROM publications WHERE document_id = ? ORDER BY id DESC LIMIT ${MOST_STEPS}`,
    { replacements: [document], type: QueryTypes.SELECT },
  );
}

export async function keepStep(
  sequelize: Sequelize,
  document: string,
  { step, revision, note, by }: Omit<DoneStep, 'at'>,
  transaction: Transaction,
): Promise<void> {
  await sequelize.query('INSERT INTO publications (document_id, revision, step, note, done_at, done_by) VALUES (?, ?, ?, ?, NOW(3), ?)', {
    replacements: [document, revision, step, note, by],
    type: QueryTypes.INSERT,
    transaction,
  });
}

/** Whether somebody took a document from readers, and nobody has shown it since. */
export async function isHidden(sequelize: Sequelize, document: string, transaction: Transaction): Promise<boolean> {
  const [last] = await sequelize.query<{ step: PublishingStep }>(
    "SELECT step FROM publications WHERE document_id = ? AND step IN ('hidden', 'approved') ORDER BY id DESC LIMIT 1",
    { replacements: [document], type: QueryTypes.SELECT, transaction },
  );
  return last?.step === 'hidden';
}

/** Who saved a version; the empty string for nobody known. */
export async function writerOf(
  sequelize: Sequelize,
  document: string,
  revision: number,
  transaction?: Transaction,
): Promise<string | null> {
  const [row] = await sequelize.query<{ by: string }>(
    'SELECT saved_by AS `by` FROM document_versions WHERE document_id = ? AND revision = ?',
    { replacements: [document, revision], type: QueryTypes.SELECT, ...(transaction === undefined ? {} : { transaction }) },
  );
  return row?.by ?? null;
}
