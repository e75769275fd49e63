import { isHidden } from '../../html/display';
import { textInPlaceOf, type ElementNode, type ParentNode, type TextNode } from '../../html/node';
import { countLetters } from '../../html/text';
import { transform } from '../../html/transform';
import { setAttribute } from '../declarations';
import { pictureAddress, pictureInAddress, type PictureBytes } from '../pictures';
import type { Pass, PassRun } from '../pass';
import { STAND_IN } from '../stand-in';

/** Addresses that only the computer or the program knows that a picture was copied from. */
const LOCAL = /^\s*(?:file:|blob:|cid:|mid:|[a-z]:[\\/]|\\\\|webkit-fake-url:|x-apple|about:|chrome)/i;

/** Takes embedded pictures into the asset library; where a picture cannot be had, leaves a box that says so. */
export const pictures: Pass<'pictures'> = {
  id: 'pictures',
  finds: ({ elements }) => elements.has('img'),
  run(run) {
    const { root, settings, report } = run;
    const beside = besideOf(run);
    let local = 0;
    transform(root, {
      element(element, parent) {
        if (element.name !== 'img') return 'keep';
        if (settings.pixels === 'drop' && isPixel(element)) {
          report.removed(element);
          return 'drop';
        }
        const source = element.attribute('src') ?? '';
        const isEmbedded = /^\s*data:/i.test(source);
        const isLocal = LOCAL.test(source) || source.trim() === '';
        const found = isEmbedded ? pictureInAddress(source) : isLocal ? (beside[local++] ?? null) : null;
        const wish = isEmbedded || found !== null ? settings.embedded : isLocal ? settings.local : settings.remote;
        if (wish === 'keep') {
          limitWidth(element, settings.widestPx, report);
          return 'keep';
        }
        if (wish === 'library' && found !== null) {
          keep(element, found, run);
          limitWidth(element, settings.widestPx, report);
          return 'keep';
        }
        if (wish === 'drop') {
          report.removed(element, 'loss');
          return 'drop';
        }
        const standIn = standInFor(element);
        report.changed(element, standIn.value, 'change', isWithinHidden(parent) ? 0 : -countLetters(standIn.value), 'paste-picture-box');
        return [standIn];
      },
    });
  },
};

/** Whether readers see nothing of what an element holds, since it or what it stands in is hidden. */
function isWithinHidden(parent: ParentNode): boolean {
  for (let at: ParentNode | null = parent; at?.type === 'element'; at = at.parent) if (isHidden(at)) return true;
  return false;
}

/** A picture of a dot, which tells a sender that his mail was opened. */
function isPixel(image: ElementNode): boolean {
  const [width, height] = [image.attribute('width'), image.attribute('height')];
  return width !== undefined && height !== undefined && Number.parseFloat(width) <= 2 && Number.parseFloat(height) <= 2;
}

/** The pictures beside the markup, where there are as many as it names on the author's computer. */
function besideOf({ root, picturesBeside }: PassRun<'pictures'>): readonly PictureBytes[] {
  let local = 0;
  transform(root, {
    element(element) {
      if (element.name === 'img' && LOCAL.test(element.attribute('src') ?? '')) local++;
      return 'keep';
    },
  });
  if (local === 0) return [];
  const beside = picturesBeside();
  return beside.length === local ? beside : [];
}

function keep(element: ElementNode, picture: PictureBytes, { keepPicture, report }: PassRun<'pictures'>): void {
  const address = pictureAddress(picture);
  keepPicture({ ...picture, address, alt: element.attribute('alt') ?? '' });
  report.attribute(element, 'src', `src="${address}"`, 'change', 'paste-picture-kept');
  setAttribute(element, 'src', address);
}

function standInFor(image: ElementNode): TextNode {
  const alt = (image.attribute('alt') ?? '').replace(/\s+/g, ' ').trim();
  return textInPlaceOf(image, alt === '' ? `${STAND_IN}]` : `${STAND_IN}: ${alt}]`);
}

/** Shows a picture that is wider than allowed smaller, in proportion. */
function limitWidth(image: ElementNode, widestPx: number | undefined, report: PassRun['report']): void {
  const [width, height] = [Number(image.attribute('width')), Number(image.attribute('height'))];
  if (widestPx === undefined || !(width > widestPx)) return;
  report.attribute(image, 'width', `width="${widestPx}"`, 'tidy', 'paste-picture-width');
  setAttribute(image, 'width', String(widestPx));
  if (height > 0) setAttribute(image, 'height', String(Math.max(1, Math.round((height * widestPx) / width))));
}
