import { LRUCache } from 'lru-cache';

const MINUTE = 60_000;

/**
 * A try to sign in: on which account, from which address, and whether from a device that did
 * before.
 */
export interface Try {
  readonly account: string;
  readonly address: string;
  readonly known: boolean;
}

export type GuardAnswer =
  | { readonly kind: 'go'; readonly waitMs: number }
  | { readonly kind: 'refused'; readonly forMs: number };

interface Count {
  readonly wrong: number;
  /** When the last of them was, by the guard’s clock. */
  readonly at: number;
}

/** Wrong tries on one account from one address before more are refused. */
const FREE = 5;
/**
 * How long the first refusal lasts; each wrong try after it doubles it, up to a quarter of an hour.
 */
const FIRST_REFUSAL = MINUTE;
const LONGEST_REFUSAL = 15 * MINUTE;
/** Wrong tries are forgotten when there were none for so long. */
const FORGOTTEN = 60 * MINUTE;
/** Wrong tries on an account, or from an address, before each costs time; and the most it costs. */
const FREE_OF_WAIT = { account: 5, address: 20 } as const;
const LONGEST_WAIT = 2_000;
/** Counts that are kept at once; those unused for the longest give way. */
const KEPT = 20_000;

/**
 * Keeps guessing slow without letting anybody keep others out. Wrong tries are counted per account
 * *and* address; beyond five more of them are refused for a while. Per account alone, and per
 * address alone, they only delay, by two seconds at most. A device that signed in to the account
 * before is never refused. A try counts as wrong from the moment it is asked for, until it turns
 * out right: tries sent all at once are counted like any others.
 */
export class SignInGuard {
  private readonly pairs = new LRUCache<string, Count>({ max: KEPT });
  private readonly accounts = new LRUCache<string, Count>({ max: KEPT });
  private readonly addresses = new LRUCache<string, Count>({ max: KEPT });

  /** @param now A clock that only goes forward, ms. */
  constructor(private readonly now: () => number) {}

  /** How many counts are kept. */
  get size(): number {
    return this.pairs.size + this.accounts.size + this.addresses.size;
  }

  /** Whether a password may be looked at, and after how long. */
  ask({ account, address, known }: Try): GuardAnswer {
    const pair = pairOf(account, address);
    const mine = this.read(this.pairs, pair);
    const left = mine.at + refusalAfter(mine.wrong) - this.now();
    if (!known && mine.wrong >= FREE && left > 0) return { kind: 'refused', forMs: left };
    const waitMs = Math.max(
      waitAfter(this.read(this.accounts, account).wrong - FREE_OF_WAIT.account),
      waitAfter(this.read(this.addresses, address).wrong - FREE_OF_WAIT.address),
    );
    this.count(this.pairs, pair);
    this.count(this.accounts, account);
    this.count(this.addresses, address);
    return { kind: 'go', waitMs };
  }

  /** A try was right: what it had been counted for is taken back. */
  right({ account, address }: Try): void {
    this.pairs.delete(pairOf(account, address));
    this.takeBack(this.accounts, account);
    this.takeBack(this.addresses, address);
  }

  private read(counts: LRUCache<string, Count>, key: string): Count {
    const found = counts.get(key);
    return found && this.now() - found.at < FORGOTTEN ? found : { wrong: 0, at: this.now() };
  }

  private count(counts: LRUCache<string, Count>, key: string): void {
    counts.set(key, { wrong: this.read(counts, key).wrong + 1, at: this.now() });
  }

  private takeBack(counts: LRUCache<string, Count>, key: string): void {
    const { wrong, at } = this.read(counts, key);
    if (wrong > 1) counts.set(key, { wrong: wrong - 1, at });
    else counts.delete(key);
  }
}

/** One key for two texts: no sign of a text can be taken for what parts them. */
const pairOf = (account: string, address: string): string => JSON.stringify([account, address]);

const refusalAfter = (wrong: number): number => Math.min(LONGEST_REFUSAL, FIRST_REFUSAL * 2 ** (wrong - FREE));

const waitAfter = (beyond: number): number => (beyond < 0 ? 0 : Math.min(LONGEST_WAIT, 100 * 2 ** beyond));
