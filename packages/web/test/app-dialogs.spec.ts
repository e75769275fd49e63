import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { Dialogs } from '../src/ui/dialogs';

@Component({ selector: 'ty-part', template: 'A part', changeDetection: ChangeDetectionStrategy.OnPush })
class Part {}

test('a part is loaded and opened', async () => {
  const dialogs = TestBed.inject(Dialogs);
  expect(await dialogs.isAnyOpen()).toBe(false);
  const opened = await dialogs.open(() => Promise.resolve(Part), { width: '400px' });
  expect(opened?.componentInstance).toBeInstanceOf(Part);
  expect([await dialogs.isAnyOpen(), dialogs.failure()]).toEqual([true, '']);
  TestBed.inject(MatDialog).closeAll();
});

test('one that does not come is told; the next one that comes takes the message away', async () => {
  const dialogs = TestBed.inject(Dialogs);
  expect(await dialogs.open(() => Promise.reject(new TypeError('Failed to fetch')), {})).toBeNull();
  expect(dialogs.failure()).toMatch(/^That could not be opened: the server does not answer/);
  await dialogs.open(() => Promise.resolve(Part), {});
  expect(dialogs.failure()).toBe('');
  TestBed.inject(MatDialog).closeAll();
});
