declare module 'nspell' {
  interface Spell {
    correct(word: string): boolean;
  }
  export default function nspell(aff: string, dic: string): Spell;
}
