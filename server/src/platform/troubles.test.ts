import { pino } from 'pino';
import { describe, expect, it } from 'vitest';
import { Troubles } from './troubles.ts';

describe('what is wrong around the application', () => {
  it('is told once it was met, since when, and until it is over', () => {
    let now = 1_000;
    const troubles = new Troubles(pino({ enabled: false }), () => now);
    troubles.met('disk');
    now = 5_000;
    troubles.met('disk');
    expect(troubles.all.map((each) => [each.what, each.since])).toEqual([['disk', 1_000]]);
    troubles.stored();
    expect(troubles.all).toEqual([]);
  });

  it('stays full until something that needs room was stored: a write over what stands there shows none', () => {
    const troubles = new Troubles(pino({ enabled: false }));
    troubles.met('full');
    troubles.met('locked');
    troubles.stored();
    expect(troubles.all.map((each) => each.what)).toEqual(['full']);
    troubles.hadRoom();
    expect(troubles.all).toEqual([]);
  });

  it('tells of a lock no longer than a minute when nothing was written since', () => {
    let now = 0;
    const troubles = new Troubles(pino({ enabled: false }), () => now);
    troubles.met('locked');
    now = 59_999;
    expect(troubles.all).toHaveLength(1);
    now = 60_000;
    expect(troubles.all).toEqual([]);
  });
});
