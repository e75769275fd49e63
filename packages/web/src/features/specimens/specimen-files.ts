import { escapeText, type ClipboardPayload, type SpecimenDocument } from '@typikon/core';
import { specimensIn, unzipped } from './specimen-folder';

/** What a file gave: a payload as if its content had been copied, or a whole specimen. */
export interface ReadFile {
  name: string;
  payload: ClipboardPayload;
  /** Where the file is a specimen that was exported. */
  specimen?: SpecimenDocument & { id?: string | undefined };
  /** What the reader of the file could not take over. */
  remarks: string[];
}

/** Files larger than this are not read: a clipboard never holds as much. */
const LARGEST = 15 * 1024 * 1024;
const LARGEST_FOLDER = 128 * 1024 * 1024;

/**
 * Reads a file as if its content had been copied: markup, text, rich text, word-processor documents, spreadsheets, mail,
 * and specimens that were exported here.
 *
 * @throws an Error with a sentence for the person where the file cannot be read
 */
export async function readSpecimenFiles(file: File): Promise<ReadFile[]> {
  if (file.size > LARGEST) throw new Error(`${file.name} is larger than ${LARGEST / 1024 / 1024} MB.`);
  const ending = /\.([a-z0-9]+)$/i.exec(file.name)?.[1]?.toLowerCase() ?? '';
  const name = file.name.replace(/\.[^.]+$/, '').replace(/[-_]+/g, ' ');
  const read = READERS[ending];
  if (read === undefined)
    throw new Error(
      `${file.name} is of a kind that cannot be read; HTML, text, Markdown, RTF, DOCX, XLSX, EML, specimens, and folders of those as ZIP can.`,
    );
  try {
    return (await read(file)).map((one) => ({ ...one, name: one.specimen?.name ?? name }));
  } catch (error) {
    throw new Error(`${file.name} cannot be read: ${error instanceof Error ? error.message : String(error)}`, { cause: error });
  }
}

type Reader = (file: File) => Promise<Omit<ReadFile, 'name'>[]>;

const typed =
  (type: string): Reader =>
  async (file) => [{ payload: { types: { [type]: await file.text() } }, remarks: [] }];

const READERS: Readonly<Record<string, Reader>> = {
  html: typed('text/html'),
  htm: typed('text/html'),
  xhtml: typed('text/html'),
  txt: typed('text/plain'),
  md: typed('text/plain'),
  markdown: typed('text/plain'),
  rtf: typed('text/rtf'),
  docx: readDocument,
  xlsx: readSheets,
  eml: readMail,
  json: readSpecimens,
  zip: readZip,
};

async function readDocument(file: File): Promise<Omit<ReadFile, 'name'>[]> {
  const { default: mammoth } = await import('mammoth');
  const { value, messages } = await mammoth.convertToHtml({ arrayBuffer: await file.arrayBuffer() });
  return [
    {
      payload: { types: { 'text/html': `<meta name="generator" content="word processor document">${value}` } },
      remarks: [...new Set(messages.map(({ message }) => message))],
    },
  ];
}

async function readSheets(file: File): Promise<Omit<ReadFile, 'name'>[]> {
  const { default: readWorkbook } = await import('read-excel-file/browser');
  const sheets = await readWorkbook(file);
  const tables = sheets.map(({ data }) => {
    const rows = data.map((row) => `<tr>${row.map((cell) => `<td>${escapeText(cellText(cell))}</td>`).join('')}</tr>`);
    return `<table>${rows.join('\n')}</table>`;
  });
  return [
    { payload: { types: { 'text/html': `<meta name="generator" content="spreadsheet document">${tables.join('\n')}` } }, remarks: [] },
  ];
}

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date) return cell.toISOString().slice(0, 10);
  return typeof cell === 'string' || typeof cell === 'number' || typeof cell === 'boolean' ? String(cell) : '';
}

async function readMail(file: File): Promise<Omit<ReadFile, 'name'>[]> {
  const { default: PostalMime } = await import('postal-mime');
  const mail = await PostalMime.parse(await file.arrayBuffer());
  const types: Record<string, string> = {};
  if (mail.html !== undefined && mail.html !== '') types['text/html'] = mail.html;
  if (mail.text !== undefined && mail.text !== '') types['text/plain'] = mail.text;
  if (Object.keys(types).length === 0) throw new Error('the mail has neither text nor markup.');
  const { length } = mail.attachments;
  return [
    {
      payload: { types },
      remarks: length === 0 ? [] : [length === 1 ? 'One attachment was left out.' : `${length} attachments were left out.`],
    },
  ];
}

const asRead = (specimen: SpecimenDocument): Omit<ReadFile, 'name'> => ({ payload: specimen.payload, specimen, remarks: [] });

async function readSpecimens(file: File): Promise<Omit<ReadFile, 'name'>[]> {
  return specimensIn(new Map([[file.name, await file.text()]])).map(asRead);
}

async function readZip(file: File): Promise<Omit<ReadFile, 'name'>[]> {
  return specimensIn(await unzipped(new Uint8Array(await file.arrayBuffer()))).map(asRead);
}

/** Reads files that were taken together where one of them is a specimen: its content may stand in the others. */
export async function readFolder(files: readonly File[]): Promise<ReadFile[]> {
  const size = files.reduce((sum, file) => sum + file.size, 0);
  if (size > LARGEST_FOLDER) throw new Error(`They are larger than ${LARGEST_FOLDER / 1024 / 1024} MB together.`);
  const texts = await Promise.all(files.map(async (file) => [file.webkitRelativePath || file.name, await file.text()] as const));
  return specimensIn(new Map(texts)).map((specimen) => ({ ...asRead(specimen), name: specimen.name }));
}
