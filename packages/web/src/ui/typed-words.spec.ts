import { signal } from '@angular/core';
import { typedWords } from './typed-words';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

function open() {
  const words = signal<string | undefined>(undefined);
  const asked: string[] = [];
  const typed = typedWords(words, (text) => void asked.push(text));
  return { words, asked, typed };
}

test('a space that was just typed stays when its words come back by the address', () => {
  const { words, asked, typed } = open();
  typed.type('delete ');
  jest.advanceTimersByTime(1000);
  expect(asked).toEqual(['delete']);
  words.set('delete');
  expect(typed.text()).toBe('delete ');
});

test('what was typed meanwhile stays, and is asked in its turn', () => {
  const { words, asked, typed } = open();
  typed.type('delete');
  jest.advanceTimersByTime(1000);
  typed.type('delete perch');
  words.set('delete');
  expect(typed.text()).toBe('delete perch');
  jest.advanceTimersByTime(1000);
  expect(asked).toEqual(['delete', 'delete perch']);
});

test('letters in a row are asked once', () => {
  const { asked, typed } = open();
  for (const text of ['d', 'de', 'del']) typed.type(text);
  jest.advanceTimersByTime(1000);
  expect(asked).toEqual(['del']);
});

test('words that somebody else put into the address are shown', () => {
  const { words, typed } = open();
  typed.type('delete');
  jest.advanceTimersByTime(1000);
  words.set('delete');
  words.set('harbour');
  expect(typed.text()).toBe('harbour');
  words.set('delete');
  expect(typed.text()).toBe('delete');
  words.set(undefined);
  expect(typed.text()).toBe('');
});
