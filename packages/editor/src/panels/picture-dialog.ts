import { isValueKept } from '@typikon/core/editing';
import type { Node } from 'prosemirror-model';
import { NodeSelection } from 'prosemirror-state';
import { attributesOf, classesOf, elementOf, isAttributeKept, withAttribute, withClass } from '../commands/attributes';
import { insertBlock, insertInline } from '../commands/blocks';
import type { EditorContext } from '../context';
import { nodeNameOf } from '../schema/compile';
import type { HtmlAttributes } from '../schema/dom';
import type { LibraryPicture, SameName } from '../services/index';
import { choice, field, make, push, tick } from './make';

const PLACES = {
  none: 'in the line',
  left: 'left, text beside it',
  right: 'right, text beside it',
  centre: 'in the middle',
  full: 'full width',
} as const;
type Place = keyof typeof PLACES;

/** A picture of the text that is being changed: the image, and the figure around it where there is one. */
interface Placed {
  image: Node;
  at: number;
  figure: { node: Node; at: number } | null;
}

function selectedPicture({ view: { state }, schema }: EditorContext): Placed | null {
  const { selection } = state;
  if (!(selection instanceof NodeSelection) || selection.node.type !== schema.nodes[nodeNameOf('img')]) return null;
  const { $from } = selection;
  for (let depth = $from.depth; depth > 0; depth--)
    if (elementOf($from.node(depth)) === 'figure')
      return { image: selection.node, at: selection.from, figure: { node: $from.node(depth), at: $from.before(depth) } };
  return { image: selection.node, at: selection.from, figure: null };
}

function captionOf(figure: Node | undefined): string {
  let words = '';
  figure?.forEach((node) => {
    if (elementOf(node) === 'figcaption') words = node.textContent;
  });
  return words;
}

/** Asks which picture, and everything about it; with a picture selected, it changes that one. */
export function openPicture(context: EditorContext): void {
  const { host, options, rules, schema, services, columnPx, baseAddress } = context;
  const library = services.pictures;
  const settings = options.picture;
  const placed = selectedPicture(context);
  const old: HtmlAttributes = placed === null ? {} : attributesOf(placed.image);
  let chosen: Pick<LibraryPicture, 'address' | 'title' | 'alt' | 'widthPx' | 'heightPx'> | null =
    placed === null
      ? null
      : {
          address: old['src'] ?? '',
          title: '',
          alt: old['alt'] ?? '',
          widthPx: Number(old['width'] ?? 0),
          heightPx: Number(old['height'] ?? 0),
        };
  const hasFigure = schema.nodes[nodeNameOf('figure')] !== undefined;
  const carrier = hasFigure ? 'figure' : 'img';
  const classOf = (place: Place): string | null =>
    place === 'none' || settings.placements[place] === '' ? null : settings.placements[place];
  const placements = (Object.keys(PLACES) as Place[]).filter((place) => {
    const name = classOf(place);
    return place === 'none' || (name !== null && isValueKept(rules, carrier, 'class', name));
  });
  const ownClasses = Object.values(settings.placements).filter((name) => name !== '');

  // What the picture shows, for those who do not see it.
  const alt = make(host, 'textarea', { rows: 2 });
  alt.value = old['alt'] ?? '';
  const decorative = tick(host, 'It only decorates: readers who do not see it miss nothing', placed !== null && old['alt'] === '');
  const sync = (): void => void (alt.disabled = decorative.input.checked);
  decorative.input.addEventListener('change', sync);
  sync();

  const carried = placed === null ? [] : classesOf(hasFigure && placed.figure !== null ? placed.figure.node : placed.image);
  let place: Place = placements.find((one) => classOf(one) !== null && carried.includes(classOf(one)!)) ?? 'none';
  const places = make(host, 'div', { class: 'te-places', role: 'radiogroup', 'aria-label': 'Placement' });
  for (const one of placements) {
    const input = make(host, 'input', { type: 'radio', name: 'te-place', value: one });
    input.checked = one === place;
    input.addEventListener('change', () => (place = one));
    places.append(make(host, 'label', {}, input, make(host, 'i', { class: `te-place te-${one}`, 'aria-hidden': 'true' }), PLACES[one]));
  }

  const width = make(host, 'input', { type: 'number', min: 1, max: 6000, value: old['width'] ?? '' });
  const caption = make(host, 'input', { type: 'text', autocomplete: 'off', value: captionOf(placed?.figure?.node) });
  const mayCaption = settings.caption && hasFigure && schema.nodes[nodeNameOf('figcaption')] !== undefined;
  const mayWidth = isAttributeKept(rules, 'img', 'width');
  const widthHint = make(host, 'p', { class: 'te-hint', role: 'status' });
  const fits = (): void => {
    const px = Number(width.value);
    widthHint.textContent =
      px > columnPx
        ? `Wider than the column: ${columnPx} pixels fit.`
        : chosen !== null && chosen.widthPx > 0
          ? `It has ${chosen.widthPx} pixels; the column has ${columnPx}.`
          : '';
  };
  width.addEventListener('input', fits);

  const preview = make(host, 'figure', { class: 'te-preview', hidden: true }, make(host, 'img', { alt: '' }), make(host, 'figcaption'));
  const show = (): void => {
    preview.hidden = chosen === null;
    if (chosen === null) return;
    preview.querySelector('img')!.src = new URL(chosen.address, baseAddress).href;
    preview.querySelector('figcaption')!.textContent = [chosen.title, chosen.widthPx > 0 ? `${chosen.widthPx} × ${chosen.heightPx}` : '']
      .filter((part) => part !== '')
      .join(', ');
    fits();
  };
  const choose = (picture: LibraryPicture): void => {
    chosen = picture;
    if (alt.value.trim() === '' && !decorative.input.checked) alt.value = picture.alt;
    if (mayWidth && picture.widthPx > 0) width.value = String(Math.min(picture.widthPx, columnPx));
    show();
  };

  const dialog = context.dialog({
    title: placed === null ? 'Picture' : 'Change the picture',
    isWide: true,
    go: placed === null ? 'Put in' : 'Change',
    take: () => {
      if (chosen === null || chosen.address === '') {
        dialog.complain('Choose a picture first.');
        return false;
      }
      const words = decorative.input.checked ? '' : alt.value.trim();
      if (words === '' && !decorative.input.checked) {
        dialog.complain('Say what the picture shows, or mark it as decoration: readers who do not see it hear these words.', alt);
        return false;
      }
      const px = Number(width.value);
      if (mayWidth && width.value !== '' && !(Number.isInteger(px) && px >= 1 && isValueKept(rules, 'img', 'width', width.value))) {
        dialog.complain(`The rules let no picture be ${width.value} wide.`, width);
        return false;
      }
      let attributes = withAttribute(old, 'src', chosen.address);
      attributes = { ...withAttribute(attributes, 'alt', null), alt: words };
      if (mayWidth) attributes = withAttribute(attributes, 'width', width.value);
      const height = px > 0 && chosen.widthPx > 0 ? Math.round((chosen.heightPx * px) / chosen.widthPx) : 0;
      if (isAttributeKept(rules, 'img', 'height')) attributes = withAttribute(attributes, 'height', height > 0 ? String(height) : null);
      return put(context, placed, attributes, {
        carrier,
        name: classOf(place),
        ownClasses,
        caption: mayCaption ? caption.value.trim() : null,
      });
    },
  });

  if (library !== undefined) dialog.body.append(picker(context, choose, (message) => dialog.complain(message)));
  else if (placed === null) dialog.body.append(make(host, 'p', { class: 'te-hint', text: 'There is no library of pictures here.' }));
  const details = make(
    host,
    'div',
    { class: 'te-details' },
    preview,
    field(host, 'What it shows', alt, 'In a sentence, such as “The pontoon at low water, seen from the quay”.'),
    decorative.dom,
  );
  if (placements.length > 1) details.append(places);
  if (mayWidth) details.append(field(host, 'Width in pixels', width), widthHint);
  if (mayCaption) details.append(field(host, 'Caption', caption, 'Shown below the picture. It may stay empty.'));
  dialog.body.append(details);
  dialog.body.classList.add('te-picture-dialog');
  show();
}

/** The part of the dialog that finds a picture in the library, or brings one there. */
function picker(
  { host, options, services, baseAddress }: EditorContext,
  choose: (picture: LibraryPicture) => void,
  complain: (message: string) => void,
): HTMLElement {
  const library = services.pictures!;
  const settings = options.picture;
  const query = make(host, 'input', { type: 'search', 'aria-label': 'Find a picture', placeholder: 'Find a picture', autocomplete: 'off' });
  const folder = choice(host, [{ value: '', label: 'All folders' }], '');
  folder.setAttribute('aria-label', 'Folder');
  const grid = make(host, 'div', { class: 'te-pictures', role: 'group', 'aria-label': 'Pictures of the library' });
  const part = make(host, 'div', { class: 'te-picker' }, make(host, 'div', { class: 'te-pair' }, query, folder), grid);
  const fail = (error: unknown): void => complain(error instanceof Error ? error.message : 'The library does not answer.');
  const press = (button: HTMLElement | null): void => {
    for (const other of grid.querySelectorAll('button')) other.setAttribute('aria-pressed', String(other === button));
  };
  const entry = (picture: LibraryPicture): HTMLButtonElement => {
    const button = push(host, '', () => {
      press(button);
      choose(picture);
    });
    button.setAttribute('aria-pressed', 'false');
    button.dataset['address'] = picture.address;
    button.append(
      make(host, 'img', { src: new URL(picture.address, baseAddress).href, alt: '', loading: 'lazy' }),
      make(host, 'span', { text: picture.title }),
    );
    return button;
  };
  let turn = 0;
  const list = (): Promise<void> => {
    const mine = ++turn;
    const isPermitted = (picture: LibraryPicture): boolean => settings.folders.length === 0 || settings.folders.includes(picture.folder);
    return library.list(query.value.trim(), folder.value).then((found) => {
      if (mine !== turn) return;
      const permitted = found.filter(isPermitted);
      grid.replaceChildren(
        ...(permitted.length === 0 ? [make(host, 'p', { class: 'te-hint', text: 'There is no such picture.' })] : permitted.map(entry)),
      );
    }, fail);
  };
  query.addEventListener('input', () => void list());
  folder.addEventListener('change', () => void list());
  library.folders().then((names) => {
    for (const name of names)
      if (settings.folders.length === 0 || settings.folders.includes(name))
        folder.append(make(host, 'option', { value: name, text: name }));
  }, fail);
  void list();
  if (!settings.upload) return part;

  const file = make(host, 'input', { type: 'file', accept: 'image/png,image/jpeg,image/gif,image/webp' });
  const asked = make(host, 'div', { class: 'te-asked', role: 'status' });
  const store = (picked: File, sameName: SameName): void => {
    asked.replaceChildren(make(host, 'p', { text: `Taking ${picked.name} into the library …` }));
    library.store(picked, { alt: '', folder: folder.value || (settings.folders[0] ?? ''), widestPx: settings.widestPx, sameName }).then(
      (answer) => {
        asked.replaceChildren();
        if ('picture' in answer) {
          const button = entry(answer.picture);
          grid.prepend(button);
          press(button);
          choose(answer.picture);
          return;
        }
        const { existing } = answer;
        asked.append(
          make(host, 'p', { text: `The library has a picture named ${existing.title} already.` }),
          push(host, 'Keep both', () => store(picked, 'keep-both')),
          push(host, 'Replace it', () => store(picked, 'replace')),
          push(host, 'Use the one that is there', () => {
            asked.replaceChildren();
            choose(existing);
          }),
        );
      },
      (error: unknown) => {
        asked.replaceChildren();
        fail(error);
      },
    );
  };
  const bring = (picked: File | undefined): void => {
    complain('');
    if (picked === undefined) return;
    if (picked.size > settings.largestKb * 1024) {
      complain(
        `${picked.name} has ${Math.ceil(picked.size / 1024)} kB; ${settings.largestKb} kB are allowed. Make it smaller and try again.`,
      );
      return;
    }
    store(picked, 'ask');
  };
  file.addEventListener('change', () => bring(file.files?.[0]));
  part.addEventListener('dragover', (event) => event.preventDefault());
  part.addEventListener('drop', (event) => {
    event.preventDefault();
    bring(event.dataTransfer?.files[0]);
  });
  part.append(
    field(
      host,
      'Or bring one from this computer',
      file,
      `PNG, JPEG, GIF or WebP, ${settings.largestKb} kB at most. It can be dropped here too.`,
    ),
    asked,
  );
  return part;
}

interface Look {
  carrier: 'figure' | 'img';
  name: string | null;
  ownClasses: readonly string[];
  /** Null where captions are not offered: what is there stays. */
  caption: string | null;
}

function put(
  context: EditorContext,
  placed: Placed | null,
  attributes: HtmlAttributes,
  { carrier, name, ownClasses, caption }: Look,
): boolean {
  const { schema, view } = context;
  const type = schema.nodes[nodeNameOf('img')]!;
  const line = schema.nodes['line']!;
  const image = type.create(
    { attributes: carrier === 'img' ? withClass(attributes, name, ownClasses) : attributes },
    null,
    placed?.image.marks,
  );
  const captioned = (words: string): Node | null =>
    words === '' ? null : schema.nodes[nodeNameOf('figcaption')]!.create(null, line.create(null, schema.text(words)));
  if (placed?.figure != null) {
    const { node, at } = placed.figure;
    const { tr } = view.state;
    tr.setNodeMarkup(placed.at, null, image.attrs, image.marks);
    tr.setNodeMarkup(at, null, { attributes: withClass(attributesOf(node), name, ownClasses) });
    if (caption !== null && caption !== captionOf(node)) {
      node.forEach((part, offset) => {
        if (elementOf(part) === 'figcaption') tr.delete(tr.mapping.map(at + 1 + offset), tr.mapping.map(at + 1 + offset + part.nodeSize));
      });
      const words = captioned(caption);
      if (words !== null) tr.insert(tr.mapping.map(at + node.nodeSize - 1), words);
    }
    tr.setSelection(NodeSelection.create(tr.doc, placed.at));
    view.dispatch(tr.scrollIntoView());
    view.focus();
    return true;
  }
  const words = caption === null ? null : captioned(caption);
  const needsFigure = carrier === 'figure' && (name !== null || words !== null);
  if (placed !== null && !needsFigure) {
    const tr = view.state.tr.setNodeMarkup(placed.at, null, image.attrs, image.marks);
    view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, placed.at)).scrollIntoView());
    view.focus();
    return true;
  }
  if (!needsFigure) return context.run(insertInline(() => image));
  const figure = schema.nodes[nodeNameOf('figure')]!.create({ attributes: name === null ? {} : { class: name } }, [
    line.create(null, image),
    ...(words === null ? [] : [words]),
  ]);
  if (placed !== null) view.dispatch(view.state.tr.delete(placed.at, placed.at + 1));
  return context.run(insertBlock(() => figure));
}
