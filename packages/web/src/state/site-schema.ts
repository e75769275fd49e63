/** Apart, so that only whoever has to read a site that the server did not check loads it. */
export { siteSchema } from '@typikon/core';
