import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, hexToBytes } from '@noble/hashes/utils.js';

/** The bytes of a picture and what kind it is. */
export interface PictureBytes {
  type: PictureType;
  bytes: Uint8Array;
}

/** A picture that a paste brought along, to be put into the asset library. */
export interface PastedPicture extends PictureBytes {
  /** Under this address the markup shows it: it follows from the bytes alone, so that the same picture is kept once. */
  address: string;
  alt: string;
}

/** Kinds of picture that the library takes: those that every browser shows and that hold no code. */
export const PICTURE_TYPES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'] as const;
export type PictureType = (typeof PICTURE_TYPES)[number];

const ENDINGS: Readonly<Record<PictureType, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
  'image/webp': 'webp',
};

/** The address of a picture in the asset library. */
export function pictureAddress({ type, bytes }: PictureBytes): string {
  return `/assets/${bytesToHex(sha256(bytes)).slice(0, 32)}.${ENDINGS[type]}`;
}

/** What kind of picture some bytes are, by how they begin (MIME Sniffing Standard, section 6.1); null for none of the kinds taken. */
export function pictureTypeOf(bytes: Uint8Array): PictureType | null {
  const begins = (...values: number[]): boolean => values.every((value, i) => bytes[i] === value);
  if (begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  if (begins(0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (begins(0x47, 0x49, 0x46, 0x38)) return 'image/gif';
  if (begins(0x52, 0x49, 0x46, 0x46) && [0x57, 0x45, 0x42, 0x50].every((value, i) => bytes[i + 8] === value)) return 'image/webp';
  return null;
}

/**
 * Reads a `data:` address (RFC 2397).
 *
 * @returns the picture, or null where it is none of the kinds taken; the bytes decide, not what the address claims
 */
export function pictureInAddress(address: string): PictureBytes | null {
  const match = /^\s*data:[^,;]{0,100}(?:;[^,;]{0,100}){0,4}?;base64,/i.exec(address);
  if (match === null) return null;
  const bytes = fromBase64(address.slice(match[0].length));
  const type = bytes === null ? null : pictureTypeOf(bytes);
  return bytes === null || type === null ? null : { type, bytes };
}

function fromBase64(text: string): Uint8Array | null {
  const clean = text.replace(/[\s\u00a0]+/g, '');
  const length = clean.replace(/=+$/, '').length;
  if (length % 4 === 1) return null;
  const bytes = new Uint8Array(Math.floor((length * 3) / 4));
  let [bits, held, at] = [0, 0, 0];
  for (let i = 0; i < length; i++) {
    const value = BASE64[clean.charCodeAt(i)] ?? -1;
    if (value < 0) return null;
    bits = (bits << 6) | value;
    held += 6;
    if (held < 8) continue;
    held -= 8;
    bytes[at++] = (bits >> held) & 0xff;
    bits &= (1 << held) - 1;
  }
  return bytes;
}

const BASE64: readonly number[] = (() => {
  const values = new Array<number>(128).fill(-1);
  [...'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'].forEach((character, i) => (values[character.charCodeAt(0)] = i));
  values['-'.charCodeAt(0)] = 62;
  values['_'.charCodeAt(0)] = 63;
  return values;
})();

/**
 * The pictures in rich text (RTF 1.9, "Pictures"): word processors put them there where their markup only names files of
 * the author's computer. Metafiles are left out; a picture that is there twice, also as a metafile, counts once.
 */
export function picturesInRtf(rtf: string): PictureBytes[] {
  const found: PictureBytes[] = [];
  let at = rtf.indexOf('\\pict');
  for (; at !== -1; at = rtf.indexOf('\\pict', at + 5)) {
    const next = rtf.indexOf('\\pict', at + 5);
    const group = rtf.slice(at, next === -1 ? undefined : next);
    const blip = /\\(?:pngblip|jpegblip)\b/.exec(group.slice(0, 4000));
    if (blip === null) continue;
    const hex = /(?:[0-9a-f]{2}\s*){16,}/i.exec(dataOf(group))?.[0].replace(/\s+/g, '') ?? '';
    const bytes = hex.length < 32 ? null : hexToBytes(hex.slice(0, hex.length - (hex.length % 2)));
    const type = bytes === null ? null : pictureTypeOf(bytes);
    if (bytes !== null && type !== null) found.push({ type, bytes });
  }
  return found;
}

/** What follows the control words and inner groups of a picture: its bytes in hexadecimal. */
function dataOf(group: string): string {
  let depth = 0;
  for (let i = 0; i < group.length; i++) {
    const character = group[i];
    if (character === '{') depth++;
    else if (character === '}') {
      if (depth === 0) return '';
      depth--;
    } else if (depth === 0 && character === '\\') {
      const word = /^\\[a-z*]+-?\d*/i.exec(group.slice(i, i + 60))?.[0];
      i += (word?.length ?? 2) - 1;
    } else if (depth === 0 && /[0-9a-f]/i.test(character!)) {
      const end = group.indexOf('}', i);
      return group.slice(i, end === -1 ? undefined : end);
    }
  }
  return '';
}
