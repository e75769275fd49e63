/**
 * Imported before anything else where a page forbids to make code from text (Content Security Policy Level 3, section 4.4): the
 * checks of schemas then do not try to. Each try would be reported, and its error makes the engine read the whole script again.
 * Zod keeps its configuration at this place, for all its copies; set so, it can be set before Zod is there.
 */
const shared = globalThis as { __zod_globalConfig?: { jitless?: boolean } };
shared.__zod_globalConfig = { ...shared.__zod_globalConfig, jitless: true };

export {};
