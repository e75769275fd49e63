import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { QueryTypes, type Sequelize } from 'sequelize';

/** A version of a document that can be looked at until a time. */
export interface Preview {
  document: string;
  revision: number;
  /** In milliseconds since 1970. */
  untilMs: number;
}

const SECRET = 'preview-secret';

/** What previews are signed with: made once, and kept with the data, so that every process knows it. */
async function secret(sequelize: Sequelize): Promise<Buffer> {
  const read = async (): Promise<string | undefined> => {
    const [row] = await sequelize.query<{ value: string }>('SELECT JSON_UNQUOTE(value) AS value FROM settings WHERE name = ?', {
      replacements: [SECRET],
      type: QueryTypes.SELECT,
    });
    return row?.value;
  };
  const known = await read();
  if (known !== undefined) return Buffer.from(known, 'hex');
  await sequelize.query('INSERT IGNORE INTO settings (name, value, revision) VALUES (?, ?, 1)', {
    replacements: [SECRET, JSON.stringify(randomBytes(32).toString('hex'))],
    type: QueryTypes.INSERT,
  });
  return Buffer.from((await read())!, 'hex');
}

async function signatureOf(sequelize: Sequelize, { document, revision, untilMs }: Preview): Promise<string> {
  return createHmac('sha256', await secret(sequelize))
    .update(`${document}\n${revision}\n${untilMs}`)
    .digest('base64url');
}

/** The path on the site at which a version can be looked at (HMAC, RFC 2104, with SHA-256). */
export async function previewPath(sequelize: Sequelize, preview: Preview): Promise<string> {
  const { document, revision, untilMs } = preview;
  return `/previews/${encodeURIComponent(document)}/${revision}/${untilMs}/${await signatureOf(sequelize, preview)}`;
}

/** Whether an address was signed here; whether its time is over is another matter. */
export async function isSigned(sequelize: Sequelize, preview: Preview, signature: string): Promise<boolean> {
  const [one, other] = [Buffer.from(await signatureOf(sequelize, preview)), Buffer.from(signature)];
  return one.length === other.length && timingSafeEqual(one, other);
}
