import fc from 'fast-check';
import { expect, it } from 'vitest';
import { dressLetter, type Layout, type Letter, MARK, pieceOf } from './index.ts';

const piece = (html: string) => pieceOf(html.replace(/\{(\w+)\}/g, (_, name) => `${MARK}${name}${MARK}`));
/** Signs of a layout that no text has, so that what was put where is read back by cutting alone. */
const LAYOUT: Layout = {
  whole: piece('<W {language}>{preview}\u0001{content}\u0001{signature}'),
  paragraph: piece('\u0002P{words}'),
  small: piece('\u0002S{words}'),
  list: piece('\u0002L{content}'),
  item: piece('\u0003{url}\u0004{words}\u0004{colour}'),
  facts: piece('\u0002F{content}'),
  fact: piece('\u0003{label}\u0004{words}'),
  button: piece('\u0002B{url}\u0004{words}\u0004{colour}'),
};
const text = fc.string({ unit: fc.constantFrom(...'abc <>&"\'⟦{words}é\n'), maxLength: 20 });
const words = text.filter((all) => all !== '');
const letters: fc.Arbitrary<Letter> = fc.record({
  ...{ subject: words, greeting: words, paragraphs: fc.array(text, { maxLength: 4 }) },
  facts: fc.array(fc.record({ label: words, shown: words }), { maxLength: 3 }),
  action: fc.record({ label: words, note: text }),
  reply: text,
  items: fc.array(fc.record({ words, path: words, link: fc.constant(null) }), { maxLength: 3 }),
});

/** HTML back to text, sign by sign. */
const read = (html: string): string =>
  html
    .replace(/<br>/g, '\n')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'")
    .replace(/&amp;/g, '&');

it('puts each thing a letter says in its place once, as text says it, and nothing of it is read as HTML', () => {
  const met = { markup: 0, items: 0, facts: 0, holes: 0 };
  fc.assert(
    fc.property(letters, words, words, (letter, url, signature) => {
      const envelope = {
        signature,
        language: 'en',
        colour: '#123456',
        urlOf: ({ path }: { path: string }) => `u ${path}`,
      };
      const { html, text: plain } = dressLetter(letter, url, envelope, LAYOUT);
      const [, content = '', signed = ''] = html.split('\u0001');
      expect(read(signed)).toBe(signature);
      const said = content.split('\u0002').slice(1);
      const { greeting, paragraphs, facts, action, reply, items = [] } = letter;
      const colour = '#123456';
      const wanted = [
        ...[greeting, ...paragraphs.filter((each) => each !== '')].map((each) => ['P', [[each]]]),
        ...(items.length > 0 ? [['L', items.map(({ words: of, path }) => [`u ${path}`, of, colour])]] : []),
        ...(facts.length > 0 ? [['F', facts.map(({ label, shown }) => [label, shown])]] : []),
        ['B', [[url, action.label, colour]]],
        ...[action.note, reply ?? ''].filter((each) => each !== '').map((each) => ['S', [[each]]]),
      ];
      expect(
        said.map((part) => [
          part[0],
          part
            .slice(1)
            .split('\u0003')
            .filter((row, place) => place > 0 || row !== '')
            .map((row) => row.split('\u0004').map(read)),
        ]),
      ).toEqual(wanted);
      // Nothing that was said begins an element or ends an attribute.
      expect(content.replace(/<br>/g, '')).not.toMatch(/[<>"']/);
      for (const each of [greeting, action.label, ...facts.map(({ shown }) => shown)]) expect(plain).toContain(each);
      if (/[<&"]/.test(`${greeting}${url}`)) met.markup += 1;
      met.items += items.length;
      met.facts += facts.length;
      met.holes += paragraphs.filter((each) => each === '').length;
    }),
    { numRuns: 400 },
  );
  for (const count of Object.values(met)) expect(count).toBeGreaterThan(30);
});

it('knows its slots: another one is an error when the application starts, not a hole in an email', () => {
  expect(() => piece('<p>{word}</p>')).toThrow('“word”');
  expect(piece('<p>{words}</p>')).toEqual(['<p>', 'words', '</p>']);
});
