import { QueryTypes, type Sequelize } from 'sequelize';
import { inTransaction } from '../db/transaction';
import { loadDocument } from '../documents/repository';
import { lastEdition } from '../editions/repository';
import { ReachService } from '../editions/reach';
import type { TextName } from '../features/candidates';
import {
  answerQuestion,
  findQuestions,
  readQuestions,
  storeQuestion,
  type Answer,
  type QuestionQuery,
  type StoredQuestion,
} from './repository';

export type Asking =
  | { is: 'asked'; asked: number; untouched: number; missing: number }
  | { is: 'missing'; detail: string }
  | { is: 'mistaken'; detail: string };
export type Answering = { is: 'answered'; question: StoredQuestion } | { is: 'missing' | 'forbidden' | 'otherwise'; detail: string };

/** Of so much text is asked at once: both renderings of it are kept. */
const MOST_BYTES = 20_000_000;

/** Asks authors about texts that a draft would touch, with both renderings; and keeps what they say. */
export class QuestionService {
  private readonly reach: ReachService;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly committing: () => void,
  ) {
    this.reach = new ReachService(sequelize);
  }

  /** Asks whoever changed each text last, about what the draft of its profile would do to it. */
  async ask(profile: string, texts: readonly TextName[], note: string, askedBy: string): Promise<Asking> {
    const edition = (await lastEdition(profile))?.number ?? null;
    if (edition === null) return { is: 'missing', detail: `There is no profile "${profile}".` };
    const bytes = await sizeOf(this.sequelize, profile, texts);
    if (bytes > MOST_BYTES)
      return {
        is: 'mistaken',
        detail: `These texts hold ${Math.ceil(bytes / 1_000_000)} MB; of ${MOST_BYTES / 1_000_000} MB at most can be asked at once. Ask about fewer.`,
      };
    const questions: Parameters<typeof storeQuestion>[1][] = [];
    let [untouched, missing] = [0, 0];
    for (const { document, field } of texts) {
      const looked = await this.reach.lookAt({ id: profile, together: [], shared: [] }, document, field);
      const stored = looked.is === 'looked' ? await loadDocument(document) : null;
      if (looked.is === 'mistaken') return looked;
      if (looked.is === 'missing' || stored === null) missing++;
      else if (looked.reach === null) untouched++;
      else {
        const { before, after } = looked.reach;
        const { revision, changedBy: person } = stored;
        questions.push({ document, field, profile, edition, revision, person, note, before, after, askedBy });
      }
    }
    await inTransaction(
      this.sequelize,
      async (transaction) => {
        for (const question of questions) await storeQuestion(this.sequelize, question, transaction);
      },
      { committing: this.committing },
    );
    return { is: 'asked', asked: questions.length, untouched, missing };
  }

  find(query: QuestionQuery): ReturnType<typeof findQuestions> {
    return findQuestions(this.sequelize, query);
  }

  read(ids: readonly number[]): Promise<StoredQuestion[]> {
    return readQuestions(this.sequelize, ids);
  }

  /** Answers a question: whoever was asked may, and where that is nobody anybody. */
  async answer(id: number, answer: Answer, reply: string, actor: string): Promise<Answering> {
    const [question] = await this.read([id]);
    if (question === undefined) return { is: 'missing', detail: `There is no question ${id}.` };
    if (question.person !== '' && actor !== '' && question.person !== actor) return { is: 'forbidden', detail: 'Somebody else was asked.' };
    if (!(await answerQuestion(this.sequelize, id, { answer, reply, answeredBy: actor })))
      return { is: 'otherwise', detail: 'It has an answer already.' };
    const [answered] = await this.read([id]);
    return { is: 'answered', question: answered! };
  }
}

/** How much some texts of a profile hold, in bytes. */
async function sizeOf(sequelize: Sequelize, profile: string, texts: readonly TextName[]): Promise<number> {
  const [row] = await sequelize.query<{ bytes: number | null }>(
    'SELECT SUM(size) AS bytes FROM document_fields WHERE profile_id = ? AND (document_id, field_key) IN (?)',
    { replacements: [profile, texts.map(({ document, field }) => [document, field])], type: QueryTypes.SELECT },
  );
  return Number(row?.bytes ?? 0);
}
