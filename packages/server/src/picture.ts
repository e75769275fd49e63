import { pictureTypeOf, type PictureType } from '@typikon/core';
import { imageSize } from 'image-size';
import sharp from 'sharp';

/** More pixels than this on a side are refused: no page shows them. */
export const WIDEST_PX = 12_000;
export const LARGEST_BYTES = 8 * 1024 * 1024;

export interface StoredPicture {
  type: PictureType;
  bytes: Buffer;
  widthPx: number;
  heightPx: number;
}

/**
 * Reads a picture as its bytes say it is, whatever its name says, and writes it anew: turned as its metadata asks, without
 * that metadata (where it was taken, with what), and no wider than is asked.
 *
 * @param widestPx pixels; 0 for as wide as it is
 * @param isForgiving whether a damaged picture is taken as far as it can be read
 * @returns the picture, or a sentence that says why it cannot be taken
 */
export async function readPicture(
  bytes: Uint8Array,
  widestPx = 0,
  isForgiving = false,
): Promise<StoredPicture | { refusal: string; status: 413 | 415 }> {
  if (bytes.length > LARGEST_BYTES) return { status: 413, refusal: `A picture can have ${LARGEST_BYTES / 1024 / 1024} MB at most.` };
  const type = pictureTypeOf(bytes);
  const size = type === null ? null : sizeOf(bytes);
  if (type === null || size === null) return { status: 415, refusal: 'This is no picture that can be taken: PNG, JPEG, GIF and WebP are.' };
  if (size.width > WIDEST_PX || size.height > WIDEST_PX)
    return { status: 413, refusal: `A picture can be ${WIDEST_PX} pixels wide and high at most.` };
  try {
    const isAnimated = type === 'image/gif' || type === 'image/webp';
    let picture = sharp(bytes, { animated: isAnimated, failOn: isForgiving ? 'none' : 'error', limitInputPixels: 120_000_000 });
    if (!isAnimated) picture = picture.rotate();
    if (widestPx > 0) picture = picture.resize({ width: widestPx, withoutEnlargement: true });
    const format = type.slice('image/'.length) as 'png' | 'jpeg' | 'gif' | 'webp';
    const { data, info } = await picture.toFormat(format, format === 'jpeg' ? { quality: 86 } : {}).toBuffer({ resolveWithObject: true });
    return { type, bytes: data, widthPx: info.width, heightPx: info.pageHeight ?? info.height };
  } catch {
    return { status: 415, refusal: 'This picture is damaged: it cannot be read to its end.' };
  }
}

function sizeOf(bytes: Uint8Array): { width: number; height: number } | null {
  try {
    const { width, height } = imageSize(bytes);
    return width > 0 && height > 0 ? { width, height } : null;
  } catch {
    return null;
  }
}
