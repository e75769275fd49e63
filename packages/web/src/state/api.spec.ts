import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting, type TestRequest } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import { Api, ApiFailure } from './api';

let api: Api;
let server: HttpTestingController;

beforeEach(() => {
  jest.useFakeTimers();
  TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
  api = TestBed.inject(Api);
  server = TestBed.inject(HttpTestingController);
});
afterEach(() => {
  server.verify();
  jest.useRealTimers();
});

const refuse = (request: TestRequest, status: number, body: object) => request.flush(body, { status, statusText: 'No' });

describe('a list that comes in pages', () => {
  test('is read to its end, and is one list', async () => {
    const all = firstValueFrom(api.pictures('quay', ''));
    server.expectOne('/api/v1/assets?q=quay&folder=').flush([{ address: '/a' }, { address: '/b' }], {
      headers: { Link: '</api/v1/assets?q=quay&folder=&after=b>; rel="next"' },
    });
    server.expectOne('/api/v1/assets?q=quay&folder=&after=b').flush([{ address: '/c' }]);
    expect((await all).map(({ address }) => address)).toEqual(['/a', '/b', '/c']);
  });
  test('fails as a whole where one page does', async () => {
    const all = firstValueFrom(api.pictures('', ''));
    server.expectOne('/api/v1/assets?q=&folder=').flush([{ address: '/a' }], { headers: { Link: '</api/v1/assets?after=a>; rel="next"' } });
    refuse(server.expectOne('/api/v1/assets?after=a'), 503, { detail: 'Not now.' });
    await expect(all).rejects.toMatchObject({ status: 503, message: 'Not now.' });
  });
});

describe('a save of which the server does not know what became', () => {
  const document = { format: 'typikon-profile/1', name: 'Diary' };
  const stored = (revision: number, name = 'Diary') => ({
    id: 'diary',
    document: { ...document, name },
    revision,
    createdAt: '',
    updatedAt: '',
  });
  const save = () => {
    const answer = firstValueFrom(api.saveDraft('diary', document, 4));
    refuse(server.expectOne('/api/v1/profiles/diary/draft'), 503, { detail: 'It is not known.', outcome: 'unknown' });
    return answer;
  };

  test('is looked up, and was stored', async () => {
    const answer = save();
    jest.advanceTimersByTime(1000);
    server.expectOne('/api/v1/profiles/diary').flush(stored(5));
    expect(await answer).toMatchObject({ revision: 5 });
  });
  test.each([
    ['nothing was stored', stored(4)],
    ['somebody else was quicker', stored(5, 'Theirs')],
  ])('is looked up: %s, and that is said', async (_what, now) => {
    const answer = save();
    jest.advanceTimersByTime(1000);
    server.expectOne('/api/v1/profiles/diary').flush(now);
    await expect(answer).rejects.toThrow('nothing was saved');
    await expect(answer).rejects.toBeInstanceOf(ApiFailure);
  });
  test('is looked up again while the database is away', async () => {
    const answer = save();
    for (let look = 0; look < 3; look++) {
      jest.advanceTimersByTime(1000);
      refuse(server.expectOne('/api/v1/profiles/diary'), 503, { detail: 'The database does not answer.' });
      jest.advanceTimersByTime(1000);
    }
    jest.advanceTimersByTime(1000);
    server.expectOne('/api/v1/profiles/diary').flush(stored(5));
    expect(await answer).toMatchObject({ revision: 5 });
  });
  test('any other refusal is told as it is', async () => {
    const answer = firstValueFrom(api.saveDraft('diary', document, 4));
    refuse(server.expectOne('/api/v1/profiles/diary/draft'), 503, { detail: 'Nothing was saved.' });
    await expect(answer).rejects.toMatchObject({ status: 503, message: 'Nothing was saved.', isUnknown: false });
  });
  test('of house limits and of stylesheets are looked up as well', async () => {
    const house = { format: 'typikon-house/1', markup: {} };
    const limits = firstValueFrom(api.saveHouseLimits(house, 2));
    refuse(server.expectOne('/api/v1/house-limits'), 503, { detail: 'It is not known.', outcome: 'unknown' });
    jest.advanceTimersByTime(1000);
    server.expectOne('/api/v1/house-limits').flush(house, { headers: { ETag: '"3"' } });
    expect(await limits).toMatchObject({ houseRevision: 3 });

    const sheet = { id: 'site', purpose: '', media: '', css: 'p{}', revision: 1 };
    const styles = firstValueFrom(api.changeStyleFiles({ note: '', stylesheets: [sheet] }));
    refuse(server.expectOne('/api/v1/style-files/changes'), 503, { detail: 'It is not known.', outcome: 'unknown' });
    jest.advanceTimersByTime(1000);
    server.expectOne('/api/v1/style-files').flush({ stylesheets: [{ ...sheet, css: 'a{}' }], pageKinds: [] });
    await expect(styles).rejects.toThrow('nothing was saved');
  });

  const unknown = (request: TestRequest) => refuse(request, 503, { detail: 'It is not known.', outcome: 'unknown' });

  test('of a new profile is looked up: where there is none, nothing was saved, and it is not waited for', async () => {
    const made = firstValueFrom(api.createProfile('diary', document));
    unknown(server.expectOne('/api/v1/profiles'));
    jest.advanceTimersByTime(1000);
    refuse(server.expectOne('/api/v1/profiles/diary'), 404, { detail: 'There is no profile "diary".' });
    await expect(made).rejects.toThrow('nothing was saved');

    const again = firstValueFrom(api.createProfile('diary', document));
    unknown(server.expectOne('/api/v1/profiles'));
    jest.advanceTimersByTime(1000);
    server.expectOne('/api/v1/profiles/diary').flush(stored(1));
    expect(await again).toMatchObject({ id: 'diary', revision: 1 });
  });
  test.each([
    ['is gone: it was removed', true],
    ['is there: it was not', false],
  ])('of a specimen’s removal is looked up: it %s', async (_what, isGone) => {
    const removed = firstValueFrom(api.removeSpecimen('minutes', 3));
    unknown(server.expectOne('/api/v1/specimens/minutes'));
    jest.advanceTimersByTime(1000);
    const look = server.expectOne('/api/v1/specimens/minutes');
    if (isGone) {
      refuse(look, 404, { detail: 'There is none.' });
      expect(await removed).toBeUndefined();
    } else {
      look.flush({ id: 'minutes', revision: 3 });
      await expect(removed).rejects.toThrow('nothing was saved');
    }
  });
  test('of what may be sent twice is sent again: words, and pictures that replace', async () => {
    const words = firstValueFrom(api.addSiteWord('Marram'));
    unknown(server.expectOne('/api/v1/site-dictionary/words'));
    jest.advanceTimersByTime(1000);
    server.expectOne('/api/v1/site-dictionary/words').flush({ words: ['Marram'] });
    expect(await words).toEqual(['Marram']);

    const file = new File(['x'], 'quay.png');
    const isPost = ({ method }: { method: string }) => method === 'POST';
    const picture = firstValueFrom(api.storePicture(file, { alt: '', folder: 'Quays', widestPx: 640, sameName: 'replace' }));
    unknown(server.expectOne(isPost));
    jest.advanceTimersByTime(1000);
    server.expectOne(isPost).flush({ title: 'quay.png', folder: 'Quays' });
    expect(await picture).toMatchObject({ picture: { title: 'quay.png' } });
  });
  test.each([
    ['is there: it was stored', 'Quays', true],
    ['is in another folder only: it was not', 'Ferries', false],
  ])('of a picture whose name nobody had is looked up: the name %s', async (_what, folder, wasStored) => {
    const picture = firstValueFrom(
      api.storePicture(new File(['x'], 'quay.png'), { alt: '', folder: 'Quays', widestPx: 640, sameName: 'ask' }),
    );
    unknown(server.expectOne(({ method }) => method === 'POST'));
    jest.advanceTimersByTime(1000);
    server.expectOne('/api/v1/assets?q=quay.png&folder=Quays').flush([{ title: 'quay.png', folder }]);
    if (wasStored) expect(await picture).toMatchObject({ picture: { title: 'quay.png' } });
    else await expect(picture).rejects.toThrow('nothing was saved');
  });
});
