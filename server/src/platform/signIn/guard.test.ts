import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SignInGuard } from './guard.ts';

const MINUTE = 60_000;

/**
 * What is known of the guard from outside, kept in another way: every wrong try with its moment.
 */
interface Model {
  readonly tries: { account: string; address: string; at: number }[];
  now: number;
}
interface Real {
  readonly guard: SignInGuard;
}

/** What the law went through: each has to come up often. */
const covered = { refused: 0, 'let in from a known device after five wrong tries': 0, delayed: 0, right: 0 };

class Try implements fc.Command<Model, Real> {
  constructor(
    private readonly account: string,
    private readonly address: string,
    private readonly known: boolean,
    private readonly isRight: boolean,
  ) {}
  check = (): boolean => true;
  run(model: Model, { guard }: Real): void {
    const { account, address, known } = this;
    const answer = guard.ask({ account, address, known });
    const mine = model.tries.filter((each) => each.account === account && each.address === address);
    const lately = since(
      mine.map((each) => each.at),
      model.now,
    );
    // Nobody is refused who did not themselves try wrongly, from where they are, five times.
    if (answer.kind === 'refused') expect([known, lately >= 5]).toEqual([false, true]);
    // What others do costs at most two seconds.
    else expect(answer.waitMs).toBeLessThanOrEqual(2_000);
    if (answer.kind === 'refused') {
      covered.refused += 1;
      return;
    }
    if (known && lately >= 5) covered['let in from a known device after five wrong tries'] += 1;
    if (answer.waitMs > 0) covered.delayed += 1;
    if (this.isRight) covered.right += 1;
    if (this.isRight) {
      guard.right({ account, address, known });
      model.tries.splice(0, model.tries.length, ...model.tries.filter((each) => !mine.includes(each)));
    } else model.tries.push({ account, address, at: model.now });
  }
  toString = (): string =>
    `${this.address}${this.known ? ' (known)' : ''} tries ${this.account} ${this.isRight ? 'rightly' : 'wrongly'}`;
}

/** How many wrong tries are not forgotten yet: all of them are, an hour after the last. */
function since(moments: readonly number[], now: number): number {
  let [counted, last] = [0, Number.NEGATIVE_INFINITY];
  for (const at of [...moments, now]) {
    if (at - last >= 60 * MINUTE) counted = 0;
    counted += 1;
    last = at;
  }
  // The last was no try.
  return counted - 1;
}

class Wait implements fc.Command<Model, Real> {
  constructor(private readonly ms: number) {}
  check = (): boolean => true;
  run(model: Model): void {
    model.now += this.ms;
  }
  toString = (): string => `${this.ms / MINUTE} minutes pass`;
}

const started = () => {
  const model: Model = { tries: [], now: 0 };
  return { model, real: { guard: new SignInGuard(() => model.now) } };
};

describe('wrong tries to sign in', () => {
  it('refuse only whoever tried, where they tried, and cost others two seconds at most', () => {
    const who = fc.constantFrom('priya', 'maren');
    const where = fc.constantFrom('192.0.2.1', '192.0.2.2');
    const tries = fc
      .tuple(who, where, fc.boolean(), fc.integer({ min: 0, max: 19 }))
      .map(([account, address, known, n]) => new Try(account, address, known, n === 0));
    const waits = fc.integer({ min: 0, max: 40 }).map((minutes) => new Wait(minutes * MINUTE));
    // Mostly tries: whoever guesses does not wait long.
    const commands = [tries, tries, tries, tries, waits];
    fc.assert(
      fc.property(fc.commands(commands, { maxCommands: 120, size: 'max' }), (run) => fc.modelRun(started, run)),
      { numRuns: 300 },
    );
    console.log('tries to sign in:', covered);
    for (const [what, times] of Object.entries(covered)) expect(times, what).toBeGreaterThan(100);
  });

  it('let one stranger guess a handful of times, then once in a while', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3_600 }), (everySeconds) => {
        const { model, real } = started();
        let looked = 0;
        const day = 24 * 60 * MINUTE;
        for (; model.now < day; model.now += everySeconds * 1_000)
          if (real.guard.ask({ account: 'maren', address: '192.0.2.1', known: false }).kind === 'go') looked += 1;
        // Five at once, then after 1, 2, 4, 8 minutes, then each quarter of an hour.
        expect(looked).toBeLessThanOrEqual(5 + 5 + day / (15 * MINUTE));
      }),
      { numRuns: 20 },
    );
  });

  it('count from the moment they are made, not when they are answered: a burst is no way round', () => {
    const { real } = started();
    const burst = Array.from(
      { length: 100 },
      () => real.guard.ask({ account: 'maren', address: '192.0.2.1', known: false }).kind,
    );
    expect(burst.filter((kind) => kind === 'go')).toHaveLength(5);
  });

  it('slow an account down that many addresses try, and never close it', () => {
    const { real } = started();
    for (let n = 0; n < 500; n += 1) real.guard.ask({ account: 'maren', address: `10.0.${n >> 8}.${n}`, known: false });
    expect(real.guard.ask({ account: 'maren', address: '192.0.2.9', known: false })).toEqual({
      kind: 'go',
      waitMs: 2_000,
    });
    expect(real.guard.ask({ account: 'priya', address: '192.0.2.9', known: false })).toEqual({ kind: 'go', waitMs: 0 });
  });

  it('are remembered in a bounded place', () => {
    const { real } = started();
    for (let n = 0; n < 60_000; n += 1) real.guard.ask({ account: `a${n}`, address: `b${n}`, known: false });
    expect(real.guard.size).toBeLessThanOrEqual(60_000);
  });
});
