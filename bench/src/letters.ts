import { dressLetter, type Letter } from '@tolvek/core/notice';
import { LAYOUT } from '@tolvek/server/layout';
import { type Figure, figure, interleaved, ROUNDS } from './figure.ts';

const LETTERS = 10_000;

/** Letters as they go: a greeting, two paragraphs, six facts, a button and what becomes of an answer. */
const letters: readonly Letter[] = Array.from({ length: LETTERS }, (_, n) => ({
  subject: `We have your request AC-${n}`,
  greeting: 'Dear Ana Lind,',
  paragraphs: [`We have your request AC-${n} & plan to finish it by Wed 25 Nov, 17:30.`, 'You can follow it here.'],
  facts: Array.from({ length: 6 }, (__, fact) => ({
    label: `Question ${fact}`,
    shown: `An answer <${n}> of some length`,
  })),
  action: { label: 'Open the request', note: 'Works until Monday.' },
  reply: 'You can answer this email.',
}));
const envelope = { signature: 'Skerrow Point Marine Station', language: 'en', colour: '#1e5a46' };
const URL = 'http://127.0.0.1/follow/token';

/** The floor: the same words, joined without a layout and without being made safe. */
const byHand = ({ greeting, paragraphs, facts, action, reply = '' }: Letter): string =>
  `${[greeting, ...paragraphs, ...facts.map(({ label, shown }) => `${label}: ${shown}`), action.label, URL, action.note, reply, envelope.signature].join('</p><p>')}`;

const took = (does: (letter: Letter) => unknown): number => {
  const began = performance.now();
  for (const letter of letters) does(letter);
  return performance.now() - began;
};

/** Filling in ten thousand letters, beside a fifth of a millisecond each, and beside joining their words by hand. */
export async function measureLetters(): Promise<readonly Figure[]> {
  const ours = (): number => took((letter) => dressLetter(letter, URL, envelope, LAYOUT).html.length);
  const name = `${LETTERS} letters put into the layout, as text and HTML, ms`;
  return [
    figure(name, Array.from({ length: ROUNDS }, ours), [LETTERS * 0.2], 1),
    await interleaved(`${name}, beside joining their words by hand`, 10, ours, () => took(byHand)),
  ];
}
