import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Letter } from './letter.ts';
import { TEXT_LENGTH, textMessage, textNumber } from './textMessage.ts';

const letter = (subject: string, ...paragraphs: string[]): Letter => ({
  ...{ subject, greeting: 'Dear Bram', paragraphs, facts: [{ label: 'Boat', shown: 'Skiff' }] },
  action: { label: 'Open', note: 'For you alone' },
});
const URL = 'https://desk.example/floor/all/VT-1';

describe('a text message', () => {
  it('has the words of a notice in one line, and where it leads', () => {
    expect(textMessage(letter('Trip VT-1', 'A trip\n  goes.', 'Please look.'), URL, true)).toBe(
      `A trip goes. Please look. ${URL}`,
    );
    expect(textMessage(letter('You are the handler of VT-1', 'A long story.'), URL, false)).toBe(
      `You are the handler of VT-1 ${URL}`,
    );
    expect(textMessage(letter('Trip VT-1'), URL, true)).toBe(`Trip VT-1 ${URL}`);
  });

  it('ends between two words where it has too many', () => {
    const text = Array(60).fill('sixsix').join(' ');
    expect(textMessage(letter('', text), URL, true)).toBe(`${Array(42).fill('sixsix').join(' ')}… ${URL}`);
  });

  it('is never too long, never ends within a word, and begins as its notice does', () => {
    const words = fc.array(
      fc.string({ unit: 'grapheme', minLength: 1, maxLength: 12 }).filter((word) => !/\s|…/.test(word)),
      { minLength: 1, maxLength: 120, size: 'max' },
    );
    fc.assert(
      fc.property(words, (some) => {
        const text = some.join(' ');
        const sent = textMessage(letter('', text), URL, true).slice(0, -URL.length - 1);
        expect([...sent].length).toBeLessThanOrEqual(TEXT_LENGTH);
        if ([...text].length <= TEXT_LENGTH) {
          expect(sent).toBe(text);
          return;
        }
        const kept = sent.slice(0, -1);
        expect(sent.endsWith('…') && text.startsWith(kept)).toBe(true);
        expect([' ', undefined]).toContain(text[kept.length]);
      }),
    );
  });
});

describe('a number', () => {
  it('is one that works from anywhere, however it is written', () => {
    expect(['+353 21 496 1000', '00353 21 4961000', '+353 (21) 496-1000', '+353.21.496.1000'].map(textNumber)).toEqual(
      Array(4).fill('+353214961000'),
    );
    expect(['01 5550142', '', 'Bram', '+0 12 345 678', '+353 21', `+${'1'.repeat(16)}`].map(textNumber)).toEqual(
      Array(6).fill(null),
    );
  });
});
