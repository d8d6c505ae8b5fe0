import { expose, type ProxyMethods, releaseProxy } from 'comlink';
import { workerJob } from './worker-job';

/** Workers as a page has them, that do their work behind a channel of messages. */
class FakeWorker {
  static begun: FakeWorker[] = [];
  isEnded = false;
  private readonly channel = new MessageChannel();
  private readonly events = new EventTarget();

  constructor(work: object) {
    FakeWorker.begun.push(this);
    expose(work, this.channel.port2);
  }

  postMessage(message: unknown, memory: ArrayBuffer[]): void {
    this.channel.port1.postMessage(message, memory);
  }
  addEventListener(type: string, told: EventListener, options?: AddEventListenerOptions): void {
    if (type === 'error') this.events.addEventListener(type, told, options);
    else {
      this.channel.port1.addEventListener(type, told, options);
      this.channel.port1.start();
    }
  }
  removeEventListener(type: string, told: EventListener): void {
    this.channel.port1.removeEventListener(type, told);
  }
  terminate(): void {
    this.isEnded = true;
    this.channel.port1.close();
    this.channel.port2.close();
  }
  fail(message: string): void {
    this.events.dispatchEvent(Object.assign(new Event('error'), { message }));
  }
}

const work = {
  double: (n: number) => 2 * n,
  bytes: (given: Uint32Array) => given.length,
  told: async (tell: ((n: number) => void) & Partial<ProxyMethods>) => {
    await tell(5);
    tell[releaseProxy]?.();
  },
  refuse: () => {
    throw new Error('not so');
  },
  never: () => new Promise<void>(() => {}),
};
type Work = typeof work;

/** What starts workers of its own, so that no test finds one of another. */
const starter = () => () => new FakeWorker(work) as unknown as Worker;

// A page tells when the network is back.
const network = new EventTarget();
for (const name of ['addEventListener', 'removeEventListener'] as const)
  Object.assign(globalThis, { [name]: network[name].bind(network) });

beforeEach(() => {
  FakeWorker.begun = [];
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask'] });
});
afterEach(() => {
  for (const worker of FakeWorker.begun) worker.terminate();
  jest.runAllTimers();
  jest.useRealTimers();
});

test('a job that follows another is done by the same worker, which ends when none follows', async () => {
  const start = starter();
  for (const n of [3, 4]) expect(await workerJob<Work, number>(start, (w) => w.double(n)).result).toBe(2 * n);
  expect(FakeWorker.begun).toHaveLength(1);
  expect(FakeWorker.begun[0]!.isEnded).toBe(false);
  jest.runAllTimers();
  expect(FakeWorker.begun[0]!.isEnded).toBe(true);
  await workerJob<Work, number>(start, (w) => w.double(5)).result;
  expect(FakeWorker.begun).toHaveLength(2);
});

test('a worker does one job at a time', async () => {
  const start = starter();
  const both = [3, 4].map((n) => workerJob<Work, number>(start, (w) => w.double(n)).result);
  expect(await Promise.all(both)).toEqual([6, 8]);
  expect(FakeWorker.begun).toHaveLength(2);
});

test('a job that is given up ends its worker, and one that is done leaves it to the next', async () => {
  const start = starter();
  const first = workerJob<Work, number>(start, (w) => w.double(3));
  await first.result;
  first.cancel();
  expect(FakeWorker.begun[0]!.isEnded).toBe(false);
  const second = workerJob<Work, void>(start, (w) => w.never());
  while (FakeWorker.begun.length === 0) await new Promise((resolve) => setImmediate(resolve));
  await new Promise((resolve) => setImmediate(resolve));
  second.cancel();
  expect(FakeWorker.begun[0]!.isEnded).toBe(true);
  expect(await workerJob<Work, number>(start, (w) => w.double(4)).result).toBe(8);
  expect(FakeWorker.begun).toHaveLength(2);
});

test('a job that is given up before there is a worker begins none', async () => {
  const job = workerJob<Work, number>(starter(), (w) => w.double(3));
  job.cancel();
  for (let turns = 0; turns < 10; turns++) await new Promise((resolve) => setImmediate(resolve));
  expect(FakeWorker.begun).toHaveLength(0);
});

test('what goes wrong is the result, and its worker gets no other job', async () => {
  const start = starter();
  await expect(workerJob<Work, void>(start, (w) => w.refuse()).result).rejects.toThrow('not so');
  expect(FakeWorker.begun[0]!.isEnded).toBe(true);
  const job = workerJob<Work, void>(start, (w) => w.never());
  while (FakeWorker.begun.length < 2) await new Promise((resolve) => setImmediate(resolve));
  FakeWorker.begun[1]!.fail('out of memory');
  await expect(job.result).rejects.toThrow('out of memory');
});

test('a worker whose script does not come is begun again', async () => {
  const start = starter();
  const job = workerJob<Work, number>(
    start,
    (w) => (FakeWorker.begun.length < 2 ? w.never() : w.double(3)) as never,
  );
  while (FakeWorker.begun.length < 1) await new Promise((resolve) => setImmediate(resolve));
  FakeWorker.begun[0]!.fail('');
  await new Promise((resolve) => setImmediate(resolve));
  await jest.runAllTimersAsync();
  expect(await job.result).toBe(6);
});

test('memory is given and not copied, and functions of the page are called', async () => {
  const start = starter();
  const memory = new Uint32Array(8);
  const told: number[] = [];
  const passed = workerJob<Work, number>(start, async (w, { callable, given }) => {
    await w.told(callable((n: number) => told.push(n)));
    return w.bytes(given(memory, [memory.buffer]));
  });
  expect(await passed.result).toBe(8);
  expect(memory).toHaveLength(0);
  expect(told).toEqual([5]);
});
