import { basename } from 'node:path';
import { DESK, type Sheet } from '@typikon/core';
import { Failure } from './failure';
import { readText } from './files';

/** Reads stylesheets by a list of paths with commas; each is called by the name of its file where that is clear. */
export function readSheetList(paths: string, all: readonly string[] = splitPaths(paths)): Sheet[] {
  return splitPaths(paths).map((path) => ({ name: shortName(path, all), css: readText(path) }));
}

export const splitPaths = (paths: string): string[] => paths.split(',').filter((path) => path !== '');

/** The file's name; the whole path where two files of that name are in question. */
export function shortName(path: string, all: readonly string[]): string {
  const name = basename(path);
  return all.some((other) => other !== path && basename(other) === name) ? path : name;
}

/** A width in CSS pixels. */
export function readWidth(option: string, value: string | undefined): number {
  const widthPx = value === undefined ? DESK.widthPx : Number(value);
  if (!Number.isInteger(widthPx) || widthPx < 1) throw new Failure(`--${option} is a whole number of pixels, not "${value}".`);
  return widthPx;
}
