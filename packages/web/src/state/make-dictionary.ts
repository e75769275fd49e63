export { makeDictionary } from '@typikon/core';
