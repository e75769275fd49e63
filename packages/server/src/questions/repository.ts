import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** `''`: nobody has answered yet; `changed`: its author wrote it anew; `fine`: it may come out so; `stays`: it must stay as it is. */
export type Answer = '' | 'changed' | 'fine' | 'stays';

/** What is asked of the author of a text. */
export interface StoredQuestion {
  id: number;
  document: string;
  title: string;
  field: string;
  profile: string;
  /** The edition that held when it was asked. */
  edition: number;
  /** The state of the document that was asked about. */
  revision: number;
  /** Who is asked; empty for anybody. */
  person: string;
  note: string;
  before: string;
  after: string;
  askedAt: Date;
  askedBy: string;
  answer: Answer;
  answeredAt: Date | null;
  answeredBy: string;
  reply: string;
}

export async function storeQuestion(
  sequelize: Sequelize,
  question: Pick<
    StoredQuestion,
    'document' | 'field' | 'profile' | 'edition' | 'revision' | 'person' | 'note' | 'before' | 'after' | 'askedBy'
  >,
  transaction: Transaction,
): Promise<void> {
  const { document, field, profile, edition, revision, person, note, before, after, askedBy } = question;
  // A question that was asked before and not answered is asked anew.
  await sequelize.query("DELETE FROM questions WHERE document_id = ? AND field_key = ? AND profile_id = ? AND answer = ''", {
    replacements: [document, field, profile],
    type: QueryTypes.DELETE,
    transaction,
  });
  await sequelize.query(
    `INSERT INTO questions
       (document_id, field_key, profile_id, edition, revision, person_id, note, before_html, after_html, asked_at, asked_by)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, NOW(3), ?)`,
    {
      replacements: [document, field, profile, edition, revision, person, note, before, after, askedBy],
      type: QueryTypes.INSERT,
      transaction,
    },
  );
}

export interface QuestionQuery {
  document?: string | undefined;
  profile?: string | undefined;
  /** Those that somebody is asked, and those that anybody is. */
  person?: string | undefined;
  isOpen?: boolean | undefined;
  limit: number;
  before?: number | undefined;
}

/** The numbers of questions, the latest first, and how long the texts of each are, in bytes. */
export async function findQuestions(sequelize: Sequelize, query: QuestionQuery): Promise<{ id: number; size: number }[]> {
  const conditions = [
    ...(query.document === undefined ? [] : ['q.document_id = :document']),
    ...(query.profile === undefined ? [] : ['q.profile_id = :profile']),
    ...(query.person === undefined ? [] : ["q.person_id IN (:person, '')"]),
    ...(query.isOpen === undefined ? [] : [query.isOpen ? "q.answer = ''" : "q.answer <> ''"]),
    ...(query.before === undefined ? [] : ['q.id < :before']),
  ];
  const rows = await sequelize.query<{ id: number; size: number }>(
    `SELECT q.id, LENGTH(q.before_html) + LENGTH(q.after_html) AS size FROM questions AS q
     ${conditions.length === 0 ? '' : `WHERE ${conditions.join(' AND ')}`} ORDER BY q.id DESC LIMIT :limit`,
    { replacements: { ...query }, type: QueryTypes.SELECT },
  );
  return rows.map(({ id, size }) => ({ id, size: Number(size) }));
}

/** Questions with both texts, the latest first. */
export async function readQuestions(sequelize: Sequelize, ids: readonly number[]): Promise<StoredQuestion[]> {
  if (ids.length === 0) return [];
  return sequelize.query<StoredQuestion>(
    `SELECT q.id, q.document_id AS document, d.title, q.field_key AS field, q.profile_id AS profile, q.edition, q.revision,
       q.person_id AS person, q.note, q.before_html AS \`before\`, q.after_html AS \`after\`, q.asked_at AS askedAt, q.asked_by AS askedBy,
       q.answer, q.answered_at AS answeredAt, q.answered_by AS answeredBy, q.reply
     FROM questions AS q JOIN documents AS d ON d.id = q.document_id WHERE q.id IN (?) ORDER BY q.id DESC`,
    { replacements: [ids], type: QueryTypes.SELECT },
  );
}

/** Answers a question; false where it has an answer already. */
export async function answerQuestion(
  sequelize: Sequelize,
  id: number,
  { answer, reply, answeredBy }: Pick<StoredQuestion, 'answer' | 'reply' | 'answeredBy'>,
): Promise<boolean> {
  const [, changed] = await sequelize.query(
    "UPDATE questions SET answer = ?, reply = ?, answered_by = ?, answered_at = NOW(3) WHERE id = ? AND answer = ''",
    { replacements: [answer, reply, answeredBy, id], type: QueryTypes.UPDATE },
  );
  return Number(changed) > 0;
}
