/** A composed document of the demo site. */
export interface Composed {
  id: string;
  title: string;
  /** The id of the content type. */
  type: string;
  profile: string;
  pageKind: string;
  html: string;
}

/** So many documents the demo has beside those that are written by hand. */
export const USUAL_COUNT = 140;

const HARBOURS = ['Brackwater Quay', 'Thornholm', 'Little Sallow', 'Orrenstrand', 'Gannet Steps'];
const FERRIES = ['Marram', 'Dunlin', 'Old Tansy'];
const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const MONTHS = ['January', 'March', 'April', 'May', 'June', 'July', 'September', 'October', 'November'];
const PARTS = [
  'the north pier',
  'the inner basin',
  'the slip',
  'the visitors’ pontoon',
  'the fuel berth',
  'the old lifeboat house',
  'the sill gate',
];
const WORKS = ['dredging', 'piling', 'repairs to the fenders', 'painting', 'a survey of the sea bed', 'work on the lights'];
const PICTURES = ['old-tansy.svg', 'brackwater-quay.svg', 'wide-chart.svg'];

/** Numbers that look as if they came by chance, and are the same every time (mulberry32). */
function numbers(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/**
 * Writes documents of the demo, from one number to another, both among them; always the same ones: plain English, with the markup
 * that years leave behind.
 */
export function compose(from: number, to: number): Composed[] {
  const written: Composed[] = [];
  for (let number = from; number <= to; number++) {
    const writer = new Writer(numbers(number * 7919));
    const make = KINDS[(number - 1) % KINDS.length]!;
    written.push(make(writer, number));
  }
  return written;
}

class Writer {
  constructor(private readonly next: () => number) {}

  int(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }
  pick<T>(all: readonly T[]): T {
    return all[Math.floor(this.next() * all.length)]!;
  }
  some<T>(all: readonly T[], count: number): T[] {
    const left = [...all];
    return Array.from({ length: Math.min(count, left.length) }, () => left.splice(Math.floor(this.next() * left.length), 1)[0]!);
  }
  chance(share: number): boolean {
    return this.next() < share;
  }
  date(): string {
    return `${this.pick(DAYS)} ${this.int(1, 28)} ${this.pick(MONTHS)}`;
  }
  time(): string {
    return `${String(this.int(5, 21)).padStart(2, '0')}:${this.pick(['00', '10', '15', '25', '30', '45', '55'])}`;
  }

  /** A paragraph, sometimes as an older editor left it. */
  paragraph(text: string, isOld: boolean): string {
    if (isOld && this.chance(0.12)) return `<p><font face="Arial" size="2">${text}</font></p>`;
    if (isOld && this.chance(0.12)) return `<p style="font-family: Calibri; margin-left: 0cm"><span><span>${text}</span></span></p>`;
    if (isOld && this.chance(0.1)) return `<p class="MsoNormal">${text}</p>`;
    if (isOld && this.chance(0.08)) return `<p align="center">${text}</p>`;
    return `<p>${text}</p>`;
  }
  /** What stands between paragraphs where somebody wanted room. */
  gap(isOld: boolean): string {
    return isOld && this.chance(0.25) ? this.pick(['<p>&nbsp;</p>', '<p></p>', '<br><br>']) : '';
  }
  figure(className: string, caption: string): string {
    const file = this.pick(PICTURES);
    const width = this.pick([480, 640, 720, 900]);
    return `<figure${className === '' ? '' : ` class="${className}"`}><img src="/images/${file}"${this.chance(0.12) ? '' : ` alt="${caption}"`} width="${width}" height="${Math.round(width / 1.8)}"><figcaption>${caption}</figcaption></figure>`;
  }
}

const lines = (...parts: (string | false)[]): string => `${parts.filter((part) => part !== false && part !== '').join('\n')}\n`;

function news(writer: Writer, number: number): Composed {
  const harbour = writer.pick(HARBOURS);
  const ferry = writer.pick(FERRIES);
  const isOld = writer.chance(0.45);
  const work = writer.pick(WORKS);
  const part = writer.pick(PARTS);
  const [title, lead] = writer.pick([
    [
      `Longer days for the ${ferry}`,
      `From ${writer.date()} the <em>${ferry}</em> leaves ${harbour} an hour earlier and comes back an hour later.`,
    ],
    [`${harbour} closes ${part} for a week`, `There will be ${work} at ${part} of ${harbour} from ${writer.date()}.`],
    [`New steps at ${harbour}`, `The wooden steps beside ${part} are gone. Stone ones take their place before the summer.`],
    [
      `What the storm left at ${harbour}`,
      `Nobody was hurt, and the ${ferry} kept to her berth. ${part.charAt(0).toUpperCase()}${part.slice(1)} needs ${work}.`,
    ],
    [`School boats race at ${harbour}`, `Eleven crews, one capsize and a great deal of shouting: the race of ${writer.date()}.`],
  ] as const);
  const body = writer.some(
    [
      `The harbour master asks everybody to keep clear of ${part} while the barge is there.`,
      `Berths are found for visitors as long as there is room. Call on channel ${writer.pick([12, 14, 16])} before you come in.`,
      `Whoever has paid for the season loses nothing: the days are added at its end.`,
      `The ${writer.pick(FERRIES)} runs as always, with her first crossing at ${writer.time()}.`,
      `Most of the money comes from the landing fees, the rest from a fund for small harbours.`,
      `Volunteers are wanted for the tea tent and for the clearing up afterwards.`,
      `The pilots have seen the plans and are content with them.`,
    ],
    writer.int(2, 5),
  );
  const hasBox = writer.chance(0.45);
  return {
    id: `news-${String(number).padStart(4, '0')}`,
    title,
    type: 'story',
    profile: 'story-desk',
    pageKind: 'news',
    html: lines(
      `<p class="lead">${lead}</p>`,
      writer.chance(0.5) && writer.figure(writer.pick(['rounded', 'rounded', 'left', 'right', '']), `${harbour}, seen from ${part}`),
      writer.paragraph(body[0]!, isOld),
      writer.gap(isOld),
      hasBox && `<p class="fare-note">A crossing costs ${writer.int(3, 9)} crowns, for children under ten nothing.</p>`,
      `<h2>What changes</h2>`,
      isOld && writer.chance(0.3) && `<h4>In short</h4>`,
      `<ul>${writer
        .some(
          [
            `First boat at ${writer.time()}`,
            `Last boat at ${writer.time()}`,
            `No boats on ${writer.pick(DAYS)}`,
            'Bicycles go free',
            'Dogs stay on deck',
          ],
          3,
        )
        .map((item) => `<li>${item}</li>`)
        .join('')}</ul>`,
      ...body.slice(1).map((text) => writer.paragraph(text, isOld)),
      writer.chance(0.35) && `<blockquote><p>We have waited ${writer.int(2, 30)} years for this.</p></blockquote>`,
      writer.chance(0.4) &&
        `<p class="note">Questions? <a href="/documents/${writer.pick(['thornholm', 'orrenstrand', 'gannet-steps'])}"${isOld && writer.chance(0.4) ? ' target="_blank"' : ''}>The harbour office</a> answers until five.</p>`,
    ),
  };
}

function guide(writer: Writer, number: number): Composed {
  const harbour = writer.pick(HARBOURS);
  const part = writer.pick(PARTS);
  const isOld = writer.chance(0.4);
  const [topic, intro] = writer.pick([
    ['coming in', `Keep the two white marks in line until you have ${part} abeam, then turn in slowly.`],
    ['where to eat', 'Three places are open all year, and a stall on the quay when the boats are in.'],
    ['with children', 'There is a slipway with a railing, a crabbing wall and a box of nets to borrow.'],
    ['in winter', `The showers close in ${writer.pick(MONTHS)}; the key to the drying room hangs in the office.`],
    ['on foot', `The coast path leaves by ${part} and reaches the next harbour in ${writer.int(2, 5)} hours.`],
  ] as const);
  return {
    id: `guide-${String(number).padStart(4, '0')}`,
    title: `${harbour}: ${topic}`,
    type: 'harbour-page',
    profile: 'story-desk',
    pageKind: 'guide',
    html: lines(
      isOld && writer.chance(0.15) && `<h1>${harbour}</h1>`,
      `<p class="lead">${intro}</p>`,
      writer.figure(writer.pick(['rounded', 'rounded', 'rounded', 'left', 'right']), `${harbour}: ${part}`),
      writer.paragraph(
        `There are ${writer.int(4, 30)} berths for visitors and ${writer.int(20, 140)} for those who stay. The depth at low water is ${writer.int(1, 4)}.${writer.int(0, 9)} m.`,
        isOld,
      ),
      `<h2>Good to know</h2>`,
      `<ul>${writer
        .some(
          [
            'Water on every pontoon',
            'Power at the visitors’ berths',
            'No fuel on Sundays',
            'A crane for boats up to four tonnes',
            'Showers beside the office',
            'A chandler across the road',
          ],
          4,
        )
        .map((item) => `<li>${item}</li>`)
        .join('')}</ul>`,
      writer.gap(isOld),
      writer.paragraph(`The office is open from ${writer.time()}, and on ${writer.pick(DAYS)}s until late.`, isOld),
      writer.chance(0.4) && `<p class="fare-note">One night costs ${writer.int(2, 5)} crowns for each metre of length.</p>`,
      writer.chance(0.3) &&
        `<p class="warning">The ${writer.pick(['sill', 'bar', 'eddy'])} off ${part} has caught out better sailors than you.</p>`,
      writer.chance(0.25) && `<hr>`,
      isOld && writer.chance(0.3) && `<div class="col-left"><p>Old numbers: see the board at the office.</p></div>`,
    ),
  };
}

function notice(writer: Writer, number: number): Composed {
  const harbour = writer.pick(HARBOURS);
  const part = writer.pick(PARTS);
  const work = writer.pick(WORKS);
  const isOld = writer.chance(0.6);
  const rows = writer.some(
    ['North cardinal', 'Green conical', 'Sector light', 'Fairway buoy', 'Leading marks', 'Mooring buoy'],
    writer.int(2, 4),
  );
  return {
    id: `notice-${String(200 + number)}`,
    title: `Notice ${200 + number}: ${work} at ${harbour}`,
    type: 'notice',
    profile: 'notices-desk',
    pageKind: 'notice',
    html: lines(
      writer.paragraph(
        `Mariners are told that there will be ${work} at ${part} of ${harbour} from ${writer.date()}, ${writer.time()}.`,
        isOld,
      ),
      writer.gap(isOld),
      writer.chance(0.5) && `<p class="warning">Pass at less than ${writer.int(3, 5)} knots. Divers may be in the water.</p>`,
      writer.chance(0.6) &&
        `<table${isOld && writer.chance(0.5) ? ' border="1" cellpadding="4"' : ''}><caption>Marks that are moved</caption><thead><tr><th scope="col">Mark</th><th scope="col">From</th><th scope="col">To</th></tr></thead><tbody>${rows
          .map(
            (mark) =>
              `<tr><td>${mark}</td><td>51° ${writer.int(10, 59)}.${writer.int(0, 9)}′ N</td><td>51° ${writer.int(10, 59)}.${writer.int(0, 9)}′ N</td></tr>`,
          )
          .join('')}</tbody></table>`,
      `<h2>Radio</h2>`,
      writer.paragraph(
        `Listen on channel ${writer.pick([12, 14])}. The barge shows two black balls by day and red over white by night.`,
        isOld,
      ),
      writer.chance(0.4) && `<p class="note">This notice ends by itself on ${writer.date()}.</p>`,
    ),
  };
}

function ferryNote(writer: Writer, number: number): Composed {
  const ferry = writer.pick(FERRIES);
  return {
    id: `ferry-${String(number).padStart(4, '0')}`,
    title: `${ferry}, ${writer.date()}`,
    type: 'ferry-note',
    profile: 'ferry-note',
    pageKind: 'article',
    html: lines(
      writer.chance(0.6)
        ? `<p>The <strong>${ferry}</strong> sails at ${writer.time()} and ${writer.time()} from ${writer.pick(HARBOURS)}.</p>`
        : `<p>No crossing of the <strong>${ferry}</strong> before ${writer.time()}: fog.</p>`,
      writer.chance(0.4) && `<p class="warning">Swell at ${writer.pick(HARBOURS)}: no bicycles today.</p>`,
    ),
  };
}

function tender(writer: Writer, number: number): Composed {
  const work = writer.pick(WORKS);
  const harbour = writer.pick(HARBOURS);
  const rows = writer.int(4, 12);
  return {
    id: `tender-${String(number).padStart(4, '0')}`,
    title: `Tender ${number}: ${work} at ${harbour}`,
    type: 'tender',
    profile: 'tender-desk',
    pageKind: 'tender',
    html: lines(
      `<p>Saltmarrow Harbours asks for offers for ${work} at ${writer.pick(PARTS)} of ${harbour}. Offers are opened on ${writer.date()} at ${writer.time()}.</p>`,
      `<h2>Schedule</h2>`,
      `<table${writer.chance(0.3) ? ' width="1100"' : ''}><thead><tr><th scope="col">Item</th><th scope="col">Work</th><th scope="col">Quantity</th><th scope="col">Unit</th></tr></thead><tbody>${Array.from(
        { length: rows },
        (_none, at) =>
          `<tr><td>${at + 1}</td><td>${writer.pick(WORKS)}, ${writer.pick(PARTS)}</td><td>${writer.int(2, 400)}</td><td>${writer.pick(['m', 'm²', 'piece', 'day'])}</td></tr>`,
      ).join('')}</tbody></table>`,
      `<h2>Conditions</h2>`,
      `<ol>${writer
        .some(
          [
            'The price holds for ninety days.',
            'Whoever offers has seen the site.',
            'The barge is insured by its owner.',
            'Work stops in winds above force six.',
            'Payment follows within thirty days.',
            'Disputes go to the court of the county.',
          ],
          writer.int(3, 5),
        )
        .map((item) => `<li>${item}</li>`)
        .join('')}</ol>`,
    ),
  };
}

function diary(writer: Writer, number: number): Composed {
  const ferry = writer.pick(FERRIES);
  return {
    id: `diary-${String(number).padStart(4, '0')}`,
    title: `${writer.pick(DAYS)} on the ${ferry}`,
    type: 'diary-entry',
    profile: 'diary',
    pageKind: 'diary',
    html: lines(
      `<p>Up at ${writer.time()}. The <em>${ferry}</em> lay still for once, and the kettle did not slide.</p>`,
      writer.chance(0.5) && writer.figure('', `The ${ferry} in the morning`),
      writer.chance(0.4) && `<h3>What broke</h3>`,
      `<ul>${writer
        .some(['One shackle', 'The heater, again', 'A window in the wheelhouse', 'Nothing, to be honest'], 2)
        .map((item) => `<li>${item}</li>`)
        .join('')}</ul>`,
      `<p>${writer.pick(['Somebody painted over the vents.', 'We counted nineteen seals.', 'The new volunteer can splice; nobody told us.', 'Rain, then more of it.'])}</p>`,
      writer.chance(0.3) && `<p>&nbsp;</p>`,
    ),
  };
}

/** In this order, again and again. */
const KINDS = [news, guide, notice, news, guide, ferryNote, notice, news, tender, guide, diary];
