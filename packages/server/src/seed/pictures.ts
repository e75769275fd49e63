import sharp from 'sharp';

/** A picture of the demo's library, drawn here: no photograph, so nobody's rights and no large files. */
interface DemoPicture {
  title: string;
  folder: string;
  alt: string;
  widthPx: number;
  heightPx: number;
  /** Shapes between the sea and the sky, in a drawing 300 wide and 200 high. */
  shapes: string;
  sky?: string;
}

const boat = (x: number, y: number, hull: string): string =>
  `<path d="M${x} ${y}h46l-8 14h-31z" fill="${hull}"/><path d="M${x + 16} ${y - 14}h14v14h-14z" fill="#fff"/><path d="M${x + 22} ${y - 26}v12" stroke="#444" stroke-width="2"/>`;
const wall = (x: number, width: number, height: number): string =>
  `<path d="M${x} ${130 - height}h${width}v${height + 20}h-${width}z" fill="#8b8373"/>`;
const house = (x: number, roof: string): string =>
  `<path d="M${x} 92h34v30h-34z" fill="#f2ece0"/><path d="M${x - 4} 92l21-16 21 16z" fill="${roof}"/><path d="M${x + 13} 104h8v18h-8z" fill="#54606b"/>`;

export const DEMO_PICTURES: readonly DemoPicture[] = [
  {
    title: 'brackwater-quay-morning.jpg',
    folder: 'harbours',
    alt: 'The quay at Brackwater in the morning, two boats alongside',
    widthPx: 1200,
    heightPx: 800,
    shapes: wall(0, 130, 22) + house(20, '#a5573d') + house(70, '#6d7a52') + boat(150, 124, '#2f5d73') + boat(220, 132, '#a6301f'),
  },
  {
    title: 'thornholm-slip.jpg',
    folder: 'harbours',
    alt: 'The slip at Thornholm at low water',
    widthPx: 1000,
    heightPx: 750,
    shapes: '<path d="M0 120l150 40h-150z" fill="#9a907c"/>' + boat(190, 128, '#6d7a52'),
  },
  {
    title: 'little-sallow-pontoon.jpg',
    folder: 'harbours',
    alt: 'The pontoon at Little Sallow with three moored dinghies',
    widthPx: 900,
    heightPx: 600,
    shapes: wall(40, 200, 4) + boat(60, 128, '#a6301f') + boat(120, 128, '#2f5d73') + boat(180, 128, '#96650f'),
  },
  {
    title: 'orrenstrand-beach.jpg',
    folder: 'harbours',
    alt: 'The beach at Orrenstrand with the beacon',
    widthPx: 1600,
    heightPx: 900,
    shapes:
      '<path d="M0 150q150-40 300 0v50h-300z" fill="#dcc9a0"/><path d="M230 70h10v60h-10z" fill="#fff"/><path d="M230 84h10v10h-10z M230 106h10v10h-10z" fill="#a6301f"/>',
  },
  {
    title: 'gannet-steps.png',
    folder: 'harbours',
    alt: 'The steps in the cliff above the landing at Gannet Steps',
    widthPx: 640,
    heightPx: 640,
    shapes: '<path d="M0 60h60v14h30v14h30v14h30v14h30v14h30v60h-210z" fill="#79705f"/>',
  },
  {
    title: 'marram.jpg',
    folder: 'ferries',
    alt: 'The ferry Marram leaving Brackwater Quay',
    widthPx: 1200,
    heightPx: 800,
    shapes: '<g transform="translate(-60 -120) scale(2)">' + boat(80, 118, '#23665a') + '</g>',
  },
  {
    title: 'dunlin.jpg',
    folder: 'ferries',
    alt: 'The ferry Dunlin in a light swell',
    widthPx: 1200,
    heightPx: 800,
    shapes: '<g transform="translate(-20 -110) scale(1.9)">' + boat(70, 118, '#96650f') + '</g>',
    sky: '#c9d6dd',
  },
  {
    title: 'old-tansy-1931.jpg',
    folder: 'ferries',
    alt: 'The ferry Old Tansy with her crew, about 1931',
    widthPx: 800,
    heightPx: 600,
    shapes: '<g transform="translate(-40 -115) scale(1.9)">' + boat(80, 118, '#3b3b3b') + '</g>',
    sky: '#e5dccb',
  },
  {
    title: 'chart-outer-bar.png',
    folder: 'charts',
    alt: 'Sketch of the outer bar with the new buoy',
    widthPx: 1800,
    heightPx: 1000,
    shapes:
      '<path d="M20 150q80-70 260-60" fill="none" stroke="#5a6070" stroke-width="2" stroke-dasharray="6 4"/><circle cx="180" cy="96" r="6" fill="#a6301f"/>',
    sky: '#eef3f1',
  },
  {
    title: 'chart-pontoon.png',
    folder: 'charts',
    alt: 'Plan of the east pontoon with berths one to eight',
    widthPx: 1000,
    heightPx: 600,
    shapes: Array.from(
      { length: 8 },
      (_, n) => `<path d="M${30 + n * 30} 100h18v30h-18z" fill="none" stroke="#5a6070" stroke-width="2"/>`,
    ).join(''),
    sky: '#f3efe6',
  },
  {
    title: 'slip-day.jpg',
    folder: 'crew',
    alt: 'Volunteers painting a dinghy on slip day',
    widthPx: 900,
    heightPx: 675,
    shapes:
      boat(120, 110, '#a6301f') +
      '<circle cx="100" cy="100" r="7" fill="#7b5a44"/><path d="M94 108h12v24h-12z" fill="#2f5d73"/><circle cx="196" cy="102" r="7" fill="#5d4433"/><path d="M190 110h12v24h-12z" fill="#96650f"/>',
  },
  {
    title: 'net-loft.jpg',
    folder: 'crew',
    alt: 'The net loft with its doors open',
    widthPx: 900,
    heightPx: 600,
    shapes:
      wall(0, 300, 2) +
      '<path d="M70 60h150v70h-150z" fill="#8d6a4f"/><path d="M60 60l85-36 85 36z" fill="#54463a"/><path d="M125 86h40v44h-40z" fill="#2a2521"/>',
  },
];

/** Draws a picture of the demo. */
export async function drawPicture({
  widthPx,
  heightPx,
  shapes,
  sky = '#cfe1ea',
  title,
}: DemoPicture): Promise<{ type: string; bytes: Buffer }> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 200" width="${widthPx}" height="${heightPx}" preserveAspectRatio="xMidYMid slice"><defs><linearGradient id="a" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="${sky}"/><stop offset="1" stop-color="#f7f3ea"/></linearGradient></defs><path d="M0 0h300v130h-300z" fill="url(#a)"/><path d="M0 130h300v70h-300z" fill="#7fa6b1"/><path d="M0 146q30-6 60 0t60 0 60 0 60 0 60 0" fill="none" stroke="#a9c5cc" stroke-width="2"/><path d="M0 172q30-6 60 0t60 0 60 0 60 0 60 0" fill="none" stroke="#a9c5cc" stroke-width="2"/>${shapes}</svg>`;
  const picture = sharp(Buffer.from(svg)).resize(widthPx, heightPx, { fit: 'cover' });
  const isPng = title.endsWith('.png');
  const bytes = await (isPng ? picture.png({ palette: true }) : picture.jpeg({ quality: 80 })).toBuffer();
  return { type: isPng ? 'image/png' : 'image/jpeg', bytes };
}
