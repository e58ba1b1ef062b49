import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { confirmed, isGone, leftToConfirm, waiting } from './waiting.ts';

/** What a browser gives: texts by key. */
function storage(held = new Map<string, string>()) {
  return {
    held,
    getItem: (key: string) => held.get(key) ?? null,
    setItem: (key: string, text: string) => void held.set(key, text),
  };
}

describe('what waits to be confirmed on this device', () => {
  let device = storage();
  beforeEach(() => {
    device = storage();
    vi.stubGlobal('localStorage', device);
  });
  afterEach(() => vi.unstubAllGlobals());

  it('is the last five that were sent and are not confirmed, the newest first', () => {
    const step = fc.record({ does: fc.constantFrom('send', 'confirm'), token: fc.constantFrom(...'abcdefgh') });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        device.held.clear();
        let model: readonly string[] = [];
        for (const { does, token } of steps) {
          const others = model.filter((each) => each !== token);
          model = does === 'send' ? [token, ...others].slice(0, 5) : others;
          if (does === 'send') leftToConfirm({ token, slug: 'visit' });
          else confirmed(token);
          expect(waiting().map((each) => each.token)).toEqual(model);
        }
      }),
    );
  });

  it('is forgotten when its link is gone, and not when the connection is', () => {
    expect([404, 410, 429, 503, 'FETCH_ERROR'].map((status) => isGone({ status }))).toEqual([
      true,
      true,
      false,
      false,
      false,
    ]);
    expect(isGone(undefined)).toBe(false);
  });

  it('is nothing where the device holds nonsense, or remembers nothing', () => {
    for (const nonsense of ['', '{', '7', '{"a":1}', '[null, 3, {"token":4,"slug":"x"}, {}]']) {
      device.held.set('tolvek:to-confirm', nonsense);
      expect(waiting()).toEqual([]);
    }
    vi.stubGlobal('localStorage', {
      getItem: () => {
        throw new Error('Not allowed.');
      },
      setItem: () => {
        throw new Error('Full.');
      },
    });
    expect(() => leftToConfirm({ token: 'a', slug: 'visit' })).not.toThrow();
    expect(waiting()).toEqual([]);
  });
});
