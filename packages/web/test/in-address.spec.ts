import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { RoutesRecognized, provideRouter, Router } from '@angular/router';
import { RouterTestingHarness } from '@angular/router/testing';
import { inAddress } from '../src/ui/in-address';

@Component({ selector: 'ty-list', template: '{{ words() }}', changeDetection: ChangeDetectionStrategy.OnPush })
class List {
  readonly words = inAddress('words');
  readonly only = inAddress('only');
}

@Component({ selector: 'ty-other', template: '', changeDetection: ChangeDetectionStrategy.OnPush })
class Other {}

async function open(address: string) {
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideRouter([
        { path: 'list', component: List },
        { path: 'other', component: Other },
      ]),
    ],
  });
  const harness = await RouterTestingHarness.create();
  return { harness, list: await harness.navigateByUrl(address, List), router: TestBed.inject(Router) };
}
const settled = async (harness: RouterTestingHarness): Promise<void> => {
  await harness.fixture.whenStable();
  // Longer than the pause after which the address is written.
  await new Promise((done) => setTimeout(done, 250));
};

test('what stands in the address is there from the beginning', async () => {
  const { list } = await open('/list?words=quay&only=here');
  expect([list.words(), list.only()]).toEqual(['quay', 'here']);
});

test('what is typed goes into the address beside what stands there, and nothing leaves no trace', async () => {
  const { harness, list, router } = await open('/list?only=here&other=1');
  list.words.set('old harbour');
  await settled(harness);
  expect(router.url).toBe('/list?only=here&other=1&words=old%20harbour');
  list.words.set('');
  await settled(harness);
  expect(router.url).toBe('/list?only=here&other=1');
});

test('two values of one moment are both written, and neither is lost', async () => {
  const { harness, list, router } = await open('/list');
  list.words.set('quay');
  list.only.set('here');
  await settled(harness);
  expect([router.url, list.words(), list.only()]).toEqual(['/list?words=quay&only=here', 'quay', 'here']);
});

test('what is typed in a row changes the address once', async () => {
  const { harness, list, router } = await open('/list');
  const navigate = jest.spyOn(router, 'navigate');
  for (const words of ['q', 'qu', 'qua']) {
    list.words.set(words);
    await harness.fixture.whenStable();
  }
  await settled(harness);
  expect([router.url, navigate.mock.calls.length]).toEqual(['/list?words=qua', 1]);
});

test('what is typed while the address changes is not written over', async () => {
  const { harness, list, router } = await open('/list');
  list.words.set('quay');
  await harness.fixture.whenStable();
  // The moment in which the address arrives, before anything is drawn of the next letter.
  router.events.subscribe((event) => {
    if (event instanceof RoutesRecognized && event.url.endsWith('words=quay')) list.words.set('quays');
  });
  await settled(harness);
  await settled(harness);
  expect([list.words(), router.url]).toEqual(['quays', '/list?words=quays']);
});

test('what is typed and taken back at once leaves the address alone', async () => {
  const { harness, list, router } = await open('/list');
  const navigate = jest.spyOn(router, 'navigate');
  list.words.set('q');
  await harness.fixture.whenStable();
  list.words.set('');
  await settled(harness);
  expect([router.url, navigate.mock.calls.length]).toEqual(['/list', 0]);
});

test('an address that is opened beside changes what is shown', async () => {
  const { harness, list } = await open('/list?words=quay');
  await harness.navigateByUrl('/list?words=slip');
  expect(list.words()).toBe('slip');
});

test('a view that was left does not call back', async () => {
  const { harness, list, router } = await open('/list');
  await harness.navigateByUrl('/other');
  list.words.set('late');
  await settled(harness);
  expect(router.url).toBe('/other');
});
