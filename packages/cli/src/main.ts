import { supervise } from './supervise';

// The command itself runs in a thread of its own, so that one that takes too long or too much memory can be ended and told of.
supervise(new URL('./command.mjs', import.meta.url), process.argv.slice(2));
