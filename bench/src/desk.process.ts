import { monitorEventLoopDelay } from 'node:perf_hooks';
import { addressOf, DEMO_NOW, demoConfig, seed } from '@tolvek/demo';
import { addPeople, DEMO_PASSWORD, start, warmWorkers } from '@tolvek/server';
import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { quantile } from './figure.ts';
import { answering } from './processes.ts';

/**
 * The application, on a folder, with so many requests; it tells how long its thread was held up.
 */
/** `waits`: `at once`, where it tells that it is there before all letters went. */
const [folder = '', size = '0', smtp = '', proxies = '0', waits = ''] = process.argv.slice(2);
const running = await start(
  demoConfig({ TOLVEK_DATA: folder, PORT: '0', TOLVEK_LOG: 'error', TOLVEK_PROXY: proxies }),
  {
    demoNow: DEMO_NOW,
    seed: (house) => seed(house, Number(size)),
    ...(smtp ? { smtp } : {}),
  },
);
if (waits !== 'at once') await running.lettersSent();
// As `npm start` does, once it answers.
await warmWorkers();
const delay = monitorEventLoopDelay({ resolution: 1 });
delay.enable();
/** How long each transaction took, ms, since it was asked for last. */
const commits: number[] = [];
const { db } = running.house;
const transaction = db.transaction.bind(db);
db.transaction = ((...args: Parameters<typeof transaction>) => {
  const began = performance.now();
  try {
    return transaction(...args);
  } finally {
    commits.push(performance.now() - began);
  }
}) as typeof db.transaction;
answering(
  {
    url: () => running.url,
    lettersSent: () => running.lettersSent().then(() => true),
    resetDelay: () => delay.reset(),
    /**
     * Held up, ms: the 99th of a hundred looks, and the longest. The resolution of the look is
     * taken off.
     */
    delay: () => ({ p99: delay.percentile(99) / 1e6 - 1, most: delay.max / 1e6 - 1 }),
    /** People who can sign in and belong to no group; tells their ids. */
    addPeople: async (names: never) => {
      const some = (names as readonly string[]).map((name) => ({
        ...{ name, email: addressOf(name), kind: 'staff' as const, role: 'member' as const },
        ...{ groups: [], does: '', active: true },
      }));
      return [...(await addPeople(running.house, [], some, DEMO_PASSWORD)).values()];
    },
    /** Transactions since the last time: how many, the 99th of a hundred and the longest, ms. */
    commits: () => {
      const some = commits.splice(0);
      return { n: some.length, p99: quantile(some, 0.99), most: Math.max(0, ...some) };
    },
    /** Timers that are due and have not rung. */
    timersDue: () =>
      (
        db.$client
          .prepare("select count(*) as n from timers where state = 'waiting' and at <= ?")
          .get(running.house.clock.now()) as {
          n: number;
        }
      ).n,
    jobsDone: () => running.jobsDone().then(() => true),
    /** The ids of things by what they are called. */
    things: () =>
      Object.fromEntries(
        db
          .select({ id: requests.id, values: requests.values })
          .from(requests)
          .where(eq(requests.stage, 'in_use'))
          .all()
          .flatMap(({ id, values }) => [values.name, values.tag, values.code].map((called) => [String(called), id])),
      ),
    copyTo: (path: never) => {
      running.house.db.$client.prepare('vacuum into ?').run(path);
    },
  },
  () => running.stop(),
);
