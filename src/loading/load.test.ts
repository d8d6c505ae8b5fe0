import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { fetcher, load, loading, watchForUpdate } from './load';

/** The features of a browser that loading needs and Node lacks. */
const page = globalThis as unknown as {
  document: { scripts: { src: string }[] };
  addEventListener: (type: string, work: () => void) => void;
  removeEventListener: () => void;
};
const online = new Set<() => void>();

beforeEach(() => {
  jest.useFakeTimers();
  loading.setState({ failing: [], isOutdated: false });
  page.document = { scripts: [{ src: 'http://host/_next/static/chunks/own.js' }] };
  page.addEventListener = (_, work) => online.add(work);
  page.removeEventListener = () => {};
  jest.spyOn(globalThis, 'fetch').mockRejectedValue(new Error('no network'));
});
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
});

/** Fails so many times before it gives a value. */
const failing = (times: number) => {
  let left = times;
  return jest.fn(async () => {
    if (left-- > 0) throw new Error('chunk');
    return 'there';
  });
};
const settle = () => jest.advanceTimersByTimeAsync(0);

test('what fails is tried again until it is there, and told while it is missing', async () => {
  const fetchIt = failing(4);
  const got = load('the ring', fetchIt);
  await settle();
  expect(loading.getState().failing).toEqual([]);
  await jest.advanceTimersByTimeAsync(300);
  expect(loading.getState().failing.map((f) => f.what)).toEqual(['the ring']);
  await jest.advanceTimersByTimeAsync(20_000);
  expect(await got).toBe('there');
  expect(loading.getState().failing).toEqual([]);
});

test('what fails keeps its place among others that fail, however often each is tried', async () => {
  const names = () => loading.getState().failing.map((f) => f.what);
  void load('the ring', failing(100));
  await jest.advanceTimersByTimeAsync(100);
  void load('the table', failing(3));
  await jest.advanceTimersByTimeAsync(400);
  for (let i = 0; i < 20; i++) {
    expect(names()).toEqual(['the ring', 'the table']);
    await jest.advanceTimersByTimeAsync(40);
  }
  await jest.advanceTimersByTimeAsync(5000);
  expect(names()).toEqual(['the ring']);
});

test('a person, or the network coming back, has it tried at once', async () => {
  const fetchIt = failing(3);
  const got = load('the ring', fetchIt);
  await jest.advanceTimersByTimeAsync(300);
  expect(fetchIt).toHaveBeenCalledTimes(2);
  loading.getState().failing[0]!.retry();
  await settle();
  expect(fetchIt).toHaveBeenCalledTimes(3);
  for (const work of online) work();
  expect(await got).toBe('there');
});

test('a page that is looked at notices another build, also where the clock is set back', async () => {
  const listeners = new Set<() => void>();
  Object.assign(page.document, {
    visibilityState: 'hidden',
    addEventListener: (_: string, work: () => void) => listeners.add(work),
    removeEventListener: (_: string, work: () => void) => listeners.delete(work),
  });
  jest
    .spyOn(globalThis, 'fetch')
    .mockImplementation(async () => Response.json(['/_next/static/chunks/new.js']));
  const end = watchForUpdate();
  await jest.advanceTimersByTimeAsync(600_000);
  // Nobody looks at it: nothing is asked.
  expect(fetch).not.toHaveBeenCalled();
  Object.assign(page.document, { visibilityState: 'visible' });
  jest.setSystemTime(Date.now() - 86_400_000);
  for (const work of listeners) work();
  await jest.advanceTimersByTimeAsync(0);
  expect(loading.getState().isOutdated).toBe(true);
  end();
  expect(listeners.size).toBe(0);
});

test('a page whose own scripts are gone from the server is known to be outdated', async () => {
  const serves = (files: string[]) =>
    (globalThis.fetch as jest.Mock).mockResolvedValue({ json: async () => files });
  serves(['/_next/static/chunks/own.js']);
  void load('the ring', failing(9));
  await jest.advanceTimersByTimeAsync(1500);
  expect(loading.getState().isOutdated).toBe(false);
  serves(['/_next/static/chunks/other.js']);
  await jest.advanceTimersByTimeAsync(6000);
  expect(loading.getState().isOutdated).toBe(true);
});

test('all who ask share one attempt, whatever fails at random', async () => {
  await fc.assert(
    fc.asyncProperty(fc.nat(12), fc.integer({ min: 1, max: 20 }), async (failures, askers) => {
      const fetchIt = failing(failures);
      const get = fetcher('the ring', fetchIt);
      const all = Promise.all(Array.from({ length: askers }, get));
      await jest.advanceTimersByTimeAsync(200_000);
      expect(new Set(await all)).toEqual(new Set(['there']));
      expect(fetchIt).toHaveBeenCalledTimes(failures + 1);
    }),
    { numRuns: 40 },
  );
});

test('no part of a page is fetched but through the loader', () => {
  const files = ['ui', 'session', 'store', 'workers'].flatMap((room) =>
    readdirSync(`src/${room}`, { recursive: true, encoding: 'utf8' }).map((name) => `src/${room}/${name}`),
  );
  const loose = files
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\./.test(name))
    .flatMap((name) =>
      readFileSync(name, 'utf8')
        .split(/;\n/)
        .map((statement) => ({ name, statement })),
    )
    .filter(({ statement }) => /(?<!typeof )\bimport\(/.test(statement))
    // A face says how it is fetched; the page that shows it hands that to the loader.
    .filter(({ statement }) => !/\b(?:load|fetcher|lazyComponent)\(|: Face =/.test(statement));
  expect(loose).toEqual([]);
});
