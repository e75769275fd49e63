const SENTENCES = [
  'The harbour office closes the north slip for the season.',
  'Boats that stay the winter pay by the month.',
  'The ferry Marram calls at Thornholm twice a day in fair weather.',
  'The committee thanked the volunteers for the new rail.',
  'Low water falls early, so the gate opens an hour before.',
];

/** The words of a numbered sentence; the same number gives the same words. */
const sentence = (i: number): string => `${SENTENCES[i % SENTENCES.length]} (${i})`;

/** A document as long as sixty pages, as a word processor puts it on the clipboard. */
export function longDocument(pages = 60): string {
  const body: string[] = [];
  const notes: string[] = [];
  for (let page = 1; page <= pages; page++) {
    body.push(`<h1 style='mso-style-next:Normal'><a name="_Toc${page}">Part ${page}</a><o:p></o:p></h1>`);
    for (let i = 0; i < 8; i++)
      body.push(
        `<p class=MsoNormal style='margin-bottom:8.0pt;line-height:107%;mso-pagination:widow-orphan'><span lang=EN-GB style='font-size:11.0pt;font-family:"Calibri",sans-serif;mso-fareast-font-family:Calibri;color:#1F497D'>${sentence(page * 10 + i)}</span> <b style='mso-bidi-font-weight:normal'><span lang=EN-GB>${sentence(i)}</span></b><o:p></o:p></p>`,
      );
    for (let i = 1; i <= 4; i++)
      for (const level of [1, 2])
        body.push(
          `<p class=MsoListParagraphCxSpMiddle style='margin-left:${36 * level}.0pt;text-indent:-18.0pt;mso-list:l0 level${level} lfo${page}'><![if !supportLists]><span lang=EN-GB style='mso-list:Ignore'>${level === 1 ? `${i}.` : 'a)'}<span style='font:7.0pt "Times New Roman"'>&nbsp;&nbsp;&nbsp; </span></span><![endif]><span lang=EN-GB>item ${page}.${i}.${level}</span><o:p></o:p></p>`,
        );
    body.push(
      `<p class=MsoNormal>Noted<a style='mso-footnote-id:ftn${page}' href="#_ftn${page}" name="_ftnref${page}" title=""><span class=MsoFootnoteReference>[${page}]</span></a>.<o:p></o:p></p>`,
    );
    notes.push(
      `<div style='mso-element:footnote' id=ftn${page}><p class=MsoFootnoteText><a style='mso-footnote-id:ftn${page}' href="#_ftnref${page}" name="_ftn${page}" title=""><span class=MsoFootnoteReference>[${page}]</span></a> Note ${page}.<o:p></o:p></p></div>`,
    );
  }
  return `<html xmlns:o="urn:schemas-microsoft-com:office:office" xmlns:w="urn:schemas-microsoft-com:office:word"><head><meta name=ProgId content=Word.Document></head><body lang=EN-GB><!--StartFragment-->${body.join('\n')}<div style='mso-element:footnote-list'><br clear=all><hr align=left size=1 width="33%">${notes.join('\n')}</div><!--EndFragment--></body></html>`;
}

/** A spreadsheet of many rows, as it is put on the clipboard. */
export function longSheet(rows = 3000): string {
  const cell = (text: string, column: number): string =>
    `<td class=xl${66 + column} align=right width=64 style='border-top:none;border-left:none;width:48pt;mso-number-format:General'>${text}</td>`;
  const body = Array.from(
    { length: rows },
    (_, row) =>
      `<tr height=20 style='height:15.0pt'>${[row + 1, `Berth ${row % 40}`, (row * 7) % 100, 'Old Tansy'].map((value, column) => cell(String(value), column)).join('')}</tr>`,
  );
  return `<html xmlns:x="urn:schemas-microsoft-com:office:excel"><head><meta name=ProgId content=Excel.Sheet><style>.xl65 {font-weight:700;}</style></head><body><table border=0 cellpadding=0 cellspacing=0 width=256 style='border-collapse:collapse'><!--StartFragment--><col width=64 span=4><tr>${['No', 'Berth', 'Depth', 'Boat'].map((name) => `<td class=xl65>${name}</td>`).join('')}</tr>${body.join('\n')}<!--EndFragment--></table></body></html>`;
}
