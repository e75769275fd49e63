import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
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
  await new Promise((done) => setTimeout(done));
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
