import { RE2JS } from 're2js';
import { readPatternsWith } from './pattern';

readPatternsWith({
  mistake(pattern) {
    try {
      RE2JS.compile(pattern);
      return null;
    } catch (error) {
      const detail = error instanceof Error ? error.message.replace(/^error parsing regexp: /, '') : String(error);
      return `The pattern cannot be used: ${detail}`;
    }
  },
  matcher(pattern) {
    const compiled = RE2JS.compile(pattern);
    return (text) => compiled.matches(text);
  },
});
