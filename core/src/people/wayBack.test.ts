import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wayBack } from './wayBack.ts';

const HERE = 'https://desk.example';

describe('the way back of who was sent to sign in', () => {
  it('is a place of the desk, and the first page for whatever else a link says', () => {
    for (const place of ['/', '/floor/all?find', '/ask/visit?owed=1#end', '/follow/a.b-c', '/ä'])
      expect(wayBack(place)).toBe(place);
    const others = [
      ...[
        '',
        null,
        undefined,
        'floor',
        'https://else.example',
        '//else.example',
        '/\\else.example',
        '\\\\else.example',
      ],
      ...[
        'javascript:alert(1)',
        '/\t/else.example',
        '/\n/else.example',
        '\t//else.example',
        '/a\\..\\..//else.example',
      ],
    ];
    for (const other of others) expect([other, wayBack(other)]).toEqual([other, '/']);
  });

  it('leads to no other host, whatever a link says: as browsers read addresses', () => {
    const piece = fc.constantFrom(
      '/',
      '\\',
      '\t',
      '\n',
      '\r',
      ':',
      '@',
      '.',
      '?',
      '#',
      'http',
      'else.example',
      'a',
      ' ',
      '%2f',
    );
    const begins = fc.constantFrom('', '/', '/a');
    const asked = fc.tuple(begins, fc.array(piece, { maxLength: 8 })).map(([begin, pieces]) => begin + pieces.join(''));
    let places = 0;
    fc.assert(
      fc.property(asked, (link) => {
        const back = wayBack(link);
        expect([link, new URL(back, HERE).origin]).toEqual([link, HERE]);
        places += Number(back !== '/');
      }),
      { numRuns: 2_000 },
    );
    console.log(`${places} of 2000 links were places of the desk`);
    expect(places).toBeGreaterThan(200);
  });
});
