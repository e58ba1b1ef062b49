import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { failedDelivery, kindOfEmail, newWords, noticesNamed, numbersNamed, placeOf, withoutLinks } from './index.ts';

const DESK = 'desk@station.example';
const LETTER = [
  'Dear Maeve,',
  'We need to know more before deciding about your request:',
  'How many samples are there, and in which boxes do they come?',
  'Your request waits until you answer.',
  'Read and answer:',
  'https://desk.example/follow/01kb8q7c2v8m4n0p.signed',
  'The service desk of the station',
].join('\n\n');
const around = { answers: LETTER, address: DESK };

/** How programs say whose the quoted words are. */
const ATTRIBUTIONS = [
  `On Mon, 30 Nov 2026 at 10:42, Service desk <${DESK}> wrote:`,
  `Am 30.11.2026 um 10:42 schrieb Service desk:`,
  `On Monday, 30 November 2026 at 10:42,\nService desk <${DESK}>\nwrote:`,
];
const quoted = (text: string): string => text.replace(/^/gm, '> ').replace(/^> $/gm, '>');
const header = (rule: string): string =>
  [rule, `From: Service desk <${DESK}>`, 'Sent: Monday, 30 November 2026 10:42', 'To: Maeve', 'Subject: Please answer']
    .filter(Boolean)
    .join('\n');

const line = fc
  .array(fc.constantFrom('Twelve', 'boxes', 'arrive', 'on', 'Tuesday', 'see', 'the', 'list', 'für', 'uns', '—', '40'), {
    ...{ minLength: 1, maxLength: 9 },
  })
  .map((words) => words.join(' '));
const written = fc
  .array(line, { minLength: 1, maxLength: 4 })
  .chain((lines) => fc.constantFrom('\n', '\n\n').map((between) => lines.join(between)));

describe('an answer by email', () => {
  it('is read without what it answers, however its program quotes', () => {
    const covered = new Set<string>();
    const style = fc.record({
      quotes: fc.constantFrom('marked', 'header', 'ruled header', 'as it was', 'nothing'),
      place: fc.constantFrom('above', 'below'),
      attribution: fc.constantFrom('', ...ATTRIBUTIONS),
      signature: fc.constantFrom('', '-- \nMaeve Castellanos\nMarine Station'),
      breaks: fc.constantFrom('\n', '\r\n'),
    });
    fc.assert(
      fc.property(written, style, (own, { quotes, place, attribution, signature, breaks }) => {
        const quote = {
          marked: [attribution, quoted(LETTER)],
          header: [header(''), LETTER],
          'ruled header': [header('-----Original message-----'), LETTER],
          'as it was': [LETTER],
          nothing: [],
        }[quotes].filter(Boolean);
        // What stands below a header is all quoted: nobody answers there.
        const isBelow = place === 'below' && !quotes.includes('header');
        const mine = signature === '' ? [own] : [own, signature];
        const email = isBelow ? [...quote, '', ...mine] : [...mine, '', ...quote];
        covered.add(`${quotes} ${isBelow ? 'below' : 'above'} ${signature === '' ? '' : 'signed'}`);
        expect(newWords(email.join('\n').replace(/\n/g, breaks), around)).toBe(own);
      }),
      { numRuns: 400 },
    );
    expect(covered.size).toBe(16);
  });

  it('keeps what is answered piece by piece between the answers', () => {
    const email = [
      ...[ATTRIBUTIONS[0], '> Dear Maeve,', '>', '> How many samples are there?', 'Twelve.'],
      ...['> In which boxes do they come?', 'Grey ones.', '>', '> The service desk'],
    ];
    expect(newWords(email.join('\n'), around)).toBe(
      '> How many samples are there?\nTwelve.\n> In which boxes do they come?\nGrey ones.',
    );
  });

  it('is empty where nothing is new in it', () => {
    expect(newWords(`\n\n${ATTRIBUTIONS[1]}\n${quoted(LETTER)}\n`, around)).toBe('');
    expect(newWords('', { answers: '', address: DESK })).toBe('');
  });

  it('shows no link of the desk, whoever leads there', () => {
    const url = 'https://desk.example:4310';
    const link = `${url}/follow/abc.def`;
    for (const found of [link, `https://safe.example/?to=${encodeURIComponent(link)}`]) {
      expect(withoutLinks(`see <${found}> please`, url)).toBe('see <[…]> please');
      expect(withoutLinks(encodeURI(encodeURI(`x ${found}`)), url)).not.toContain('abc.def');
    }
    expect(withoutLinks('see https://other.example/follow/abc', url)).toBe('see https://other.example/follow/abc');
  });
});

describe('what an email is', () => {
  const headers = (of: Record<string, string>) => new Map(Object.entries(of));
  it('is told by its headers', () => {
    expect(kindOfEmail(headers({}), 'a@b.example')).toBe('written');
    expect(kindOfEmail(headers({ 'auto-submitted': 'no' }), 'a@b.example')).toBe('written');
    for (const value of ['auto-replied', 'auto-generated; owner-email="a@b.example"', 'Auto-Notified (by rule)'])
      expect(kindOfEmail(headers({ 'auto-submitted': value }), 'a@b.example')).toBe('automatic');
    expect(kindOfEmail(headers({}), '')).toBe('automatic');
    expect(kindOfEmail(headers({ precedence: 'Bulk' }), 'a@b.example')).toBe('automatic');
    expect(kindOfEmail(headers({ 'list-id': '<all.station.example>' }), 'a@b.example')).toBe('automatic');
    const report = (type: string) => headers({ 'content-type': `multipart/report; report-type=${type}; boundary=x` });
    expect(kindOfEmail(report('delivery-status'), '')).toBe('undelivered');
    expect(kindOfEmail(report('disposition-notification'), 'a@b.example')).toBe('automatic');
  });

  it('says which email could not be delivered, and why', () => {
    const returned = { media: 'text/rfc822-headers', text: 'Subject: Hello\r\nMessage-ID:\r\n <abc@tolvek>\r\n' };
    const status = (action: string) => ({
      media: 'message/delivery-status',
      text: `Reporting-MTA: dns; mx.example\r\n\r\nFinal-Recipient: rfc822; gone@b.example\r\nAction: ${action}\r\nStatus: 5.1.1\r\nDiagnostic-Code: smtp; 550 no such\r\n  mailbox\r\n`,
    });
    expect(failedDelivery([status('failed'), returned])).toEqual({
      messageId: '<abc@tolvek>',
      reason: '550 no such mailbox',
    });
    expect(failedDelivery([status('delayed'), returned])).toBeNull();
    expect(failedDelivery([status('failed')])).toBeNull();
  });

  it('names requests by number, and our emails by their ids', () => {
    expect(numbersNamed('Re: Please answer: Samples (SA-00012), and sa-00012; AC-00333')).toEqual([
      'SA-00012',
      'AC-00333',
    ]);
    expect(numbersNamed('Invoice 2026-00012, part X-SA-00012-B, call 0800-123')).toEqual([]);
    const ids = ['01kb8q7c2v8m4n0p5r6s7t8v9w', '01kb8q7c2v8m4n0p5r6s7t8v9x'];
    expect(noticesNamed(`<a@other.example> <${ids[0]}@tolvek>\r\n <${ids[1]}@tolvek>`)).toEqual([ids[1], ids[0]]);
  });
});

describe('where an email belongs', () => {
  // Read off the table of the decision, one line each: what it is, and what becomes of it.
  const role = fc.constantFrom('requester' as const, 'desk' as const, null);
  const facts = fc.record({
    isAutomatic: fc.boolean(),
    saysSomething: fc.boolean(),
    answered: fc.option(fc.record({ request: fc.constant('a'), wentToSender: fc.boolean() })),
    named: fc.constantFrom([], ['a'], ['b'], ['a', 'b']),
    isKnown: fc.boolean(),
    roles: fc.record({ a: role, b: role }),
  });

  it('never makes words of the staff of an email that anybody could have sent', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(facts, ({ roles, ...about }) => {
        const place = placeOf({ ...about, roleAt: (id) => roles[id as 'a' | 'b'] });
        seen.add(place.is === 'held' ? place.why : place.is);
        expect(place.is === 'aside').toBe(about.isAutomatic);
        if (place.is === 'aside' || place.is === 'held') return;
        const sender = roles[place.request as 'a' | 'b'];
        expect(about.saysSomething).toBe(true);
        // What is answered counts before what is named.
        expect(place.request).toBe(about.answered ? 'a' : about.named[0]);
        if (place.is === 'note') expect(about.answered?.wentToSender && sender === 'desk').toBe(true);
        else expect(sender).toBe('requester');
      }),
      { numRuns: 2_000 },
    );
    expect([...seen].sort()).toEqual(
      ['aside', 'empty', 'may-not', 'message', 'no-request', 'note', 'several', 'unknown-sender', 'unproved'].sort(),
    );
  });
});
