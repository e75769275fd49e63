/** A key as it is printed for the person at this keyboard. */
export function keyLabel(key: string, isMac = false): string {
  const parts = key.endsWith('--') ? [...key.slice(0, -2).split('-'), '-'] : key.split('-');
  const words: Readonly<Record<string, string>> = {
    Mod: isMac ? '⌘' : 'Ctrl',
    ArrowUp: '↑',
    ArrowDown: '↓',
    ArrowLeft: '←',
    ArrowRight: '→',
  };
  return parts.map((part) => words[part] ?? (part.length === 1 ? part.toUpperCase() : part)).join('+');
}
