/** Signs that authors need and keyboards lack, by their names in Unicode, shortened, with other names that people look for. */
const LIST = `– en dash|— em dash|‐ hyphen|‑ non-breaking hyphen|… ellipsis dots|‘ left single quotation mark|’ right single quotation mark apostrophe|“ left double quotation mark|” right double quotation mark|„ low double quotation mark|« left guillemet|» right guillemet|• bullet|· middle dot|† dagger|‡ double dagger|§ section paragraph sign|¶ pilcrow paragraph mark|© copyright|® registered|™ trade mark|° degree|′ prime minute foot|″ double prime second inch|‰ per mille|№ numero number|× multiplication times|÷ division|± plus minus|− minus|≈ almost equal about|≠ not equal|≤ less or equal|≥ greater or equal|∞ infinity|√ square root|∑ sum|∆ delta increment|π pi|µ micro|Ω ohm omega|½ one half|⅓ one third|⅔ two thirds|¼ one quarter|¾ three quarters|⅛ one eighth|⅜ three eighths|⅝ five eighths|⅞ seven eighths|¹ superscript one|² superscript two squared|³ superscript three cubed|€ euro|£ pound sterling|¥ yen|¢ cent|$ dollar|← arrow left|→ arrow right|↑ arrow up|↓ arrow down|↔ arrow left right|⇒ double arrow right therefore|✓ tick check|✗ cross wrong|★ star|☎ telephone|✉ envelope mail|⚓ anchor|⚠ warning|☀ sun|☁ cloud|☂ umbrella rain|❄ snow frost|à a grave|á a acute|â a circumflex|ã a tilde|ä a diaeresis umlaut|å a ring|æ ae ligature|ç c cedilla|è e grave|é e acute|ê e circumflex|ë e diaeresis|ì i grave|í i acute|î i circumflex|ï i diaeresis|ñ n tilde|ò o grave|ó o acute|ô o circumflex|õ o tilde|ö o diaeresis umlaut|ø o stroke|œ oe ligature|ß sharp s|ù u grave|ú u acute|û u circumflex|ü u diaeresis umlaut|ý y acute|ÿ y diaeresis|ŵ w circumflex|ŷ y circumflex|ł l stroke|ś s acute|ż z dot|ź z acute|č c caron|š s caron|ž z caron|ř r caron|ě e caron|ő o double acute|ű u double acute|ð eth|þ thorn|À A grave capital|Á A acute capital|Â A circumflex capital|Ä A diaeresis umlaut capital|Å A ring capital|Æ AE ligature capital|Ç C cedilla capital|È E grave capital|É E acute capital|Ê E circumflex capital|Ñ N tilde capital|Ö O diaeresis umlaut capital|Ø O stroke capital|Ü U diaeresis umlaut capital|α alpha|β beta|γ gamma|δ delta small|λ lambda|θ theta|σ sigma|φ phi|\u00a0 no-break hard space|\u2009 thin space|\u202f narrow no-break space|\u00ad soft hyphen`;

const NAMES: ReadonlyMap<string, string> = new Map(
  LIST.split('|').map((entry) => [entry.slice(0, entry.indexOf(' ')), entry.slice(entry.indexOf(' ') + 1)]),
);

/** What a sign is called; its code point (Unicode) where it is not in the list. */
export function nameOfCharacter(character: string): string {
  return (
    NAMES.get(character) ?? [...character].map((one) => `U+${one.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`).join(' ')
  );
}

/** The signs whose name has every word that was asked for, or whose code point was; all for nothing asked. */
export function findCharacters(asked: string): string[] {
  const code = /^u\+?([0-9a-f]{4,6})$/i.exec(asked.trim());
  if (code !== null) {
    const point = Number.parseInt(code[1]!, 16);
    const isControl = point < 0x20 || (point >= 0x7f && point < 0xa0) || (point >= 0xd800 && point < 0xe000) || point > 0x10ffff;
    return isControl ? [] : [String.fromCodePoint(point)];
  }
  const words = asked
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  return [...NAMES]
    .filter(([sign, name]) => sign === asked.trim() || words.every((word) => name.toLowerCase().includes(word)))
    .map(([sign]) => sign);
}
