/** What takes in a paste: markup of payloads, and the passes. It reads patterns, too. */
import './profile/pattern-engine';

export { plainPayload } from './paste/payload';
export { runPaste } from './paste/run';
