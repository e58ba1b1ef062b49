import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hostAllowed, isHost } from '../../register/index.ts';
import { formsLedTo, type Leading, roundBy } from './elsewhere.ts';

describe('where editions lead', () => {
  it('goes round where some way from it comes back, and says by which forms', () => {
    const KEYS = ['a', 'b', 'c', 'd', 'e'];
    const seen = { round: 0, not: 0, long: 0 };
    fc.assert(
      fc.property(fc.array(fc.subarray(KEYS, { maxLength: 2 }), { minLength: 5, maxLength: 5 }), (leads) => {
        const forms: Leading[] = KEYS.map((key, at) => ({ key, title: key.toUpperCase(), leads: leads[at] ?? [] }));
        const leadsOf = (key: string): readonly string[] => forms.find((form) => form.key === key)?.leads ?? [];
        const first = leadsOf('a').filter((key) => key !== 'a');
        // Every way, walked by hand.
        const comesBack = (at: string, seenOn: readonly string[]): boolean =>
          leadsOf(at).some((next) => next === 'a' || (!seenOn.includes(next) && comesBack(next, [...seenOn, next])));
        const way = roundBy('a', first, forms);
        expect(way.length > 0).toBe(first.some((key) => comesBack(key, [key])));
        seen[way.length > 0 ? 'round' : 'not'] += 1;
        if (way.length === 0) return;
        // It begins and ends here, and each leads to the next.
        expect([way[0], way.at(-1)]).toEqual(['a', 'a']);
        for (const [at, key] of way.slice(0, -1).entries())
          expect((at === 0 ? first : leadsOf(key)).includes(way[at + 1] ?? '')).toBe(true);
        if (way.length > 3) seen.long += 1;
      }),
      { numRuns: 600 },
    );
    expect(Object.values(seen).every((count) => count > 10)).toBe(true);
  });

  it('is told of editions that are on, each form once', () => {
    const on = { on: true, elsewhere: { form: 'b' } };
    expect(formsLedTo([on, { ...on, on: false, elsewhere: { form: 'c' } }, on, { on: true }])).toEqual(['b']);
    expect(formsLedTo([{ on: true, elsewhere: { address: 'https://x.example' } }])).toEqual([]);
  });
});

describe('an address that somebody may be led to', () => {
  const HOSTS = ['forms.example', 'merrow.example'];

  it('is at a host that the desk allows, or below one, over HTTPS', () => {
    for (const [address, host] of [
      ['https://forms.example/kit?x=1', 'forms.example'],
      ['https://a.b.merrow.example', 'a.b.merrow.example'],
      ['https://FORMS.example/', 'forms.example'],
    ] as const)
      expect([address, hostAllowed(address, HOSTS)]).toEqual([address, host]);
  });

  it('is nothing that only looks like it', () => {
    for (const address of [
      ...[
        'http://forms.example',
        'https://forms.example.evil.example',
        'https://evil-forms.example',
        '//forms.example',
      ],
      ...['https://forms.example@evil.example', 'https://me@forms.example', 'https://forms.example:8443/'],
      ...['javascript:alert(1)//forms.example', 'data:text/html,forms.example', 'https://', 'forms.example', ''],
      ...['https://evil.example/https://forms.example', 'https://evil.example#forms.example', 'https:\\\\evil.example'],
      'https://xn--frms-2qa.example',
    ])
      expect([address, hostAllowed(address, HOSTS)]).toEqual([address, null]);
    expect(hostAllowed('https://forms.example', [])).toBeNull();
  });

  it('names a host as hosts are written', () => {
    expect(['forms.example', 'a-b.merrow.example', 'x1.y2.example'].map(isHost)).toEqual([true, true, true]);
    const wrong = [
      '',
      'localhost',
      'forms..example',
      '-a.example',
      'a-.example',
      'forms.example/',
      'https://a.example',
    ];
    expect([...wrong, '*.example', '10.0.0.1', 'a b.example', `${'a'.repeat(64)}.example`].map(isHost)).toEqual(
      [...wrong, 1, 2, 3, 4].map(() => false),
    );
  });
});
