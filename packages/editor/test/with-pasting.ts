import { pasting } from '../src/paste/later';

beforeAll(() => pasting());
