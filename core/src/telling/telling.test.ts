import type { Words } from '@tolvek/words';
import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { NoticeCause } from '../notice/index.ts';
import {
  mergeText,
  type NoticeNames,
  type NoticeRule,
  namedInText,
  noticeInWords,
  piecesOf,
  pieceText,
  USUAL_KINDS,
} from './index.ts';

// Every usual kind is one that somebody is written to by.
const KINDS: readonly NoticeCause['kind'][] = USUAL_KINDS;

const said = (paragraphs: readonly Words[]): string => paragraphs.map((words) => english(words)).join('\n\n');
const merged = (text: string, known: Readonly<Record<string, string>>) =>
  mergeText(text, (name) => known[name] ?? null);

describe('a text of an email', () => {
  it('has what it names put in, with words of its own for what is empty', () => {
    const text = 'Dear {visitor|colleague}, {request.number} waits.\nIt is for {team}.\n\nYours, {happened.by}.';
    const all = { visitor: 'Elke', 'request.number': 'AC-00007', team: 'Boats', 'happened.by': 'Ilse' };
    expect(said(merged(text, all).paragraphs)).toBe('Dear Elke, AC-00007 waits.\nIt is for Boats.\n\nYours, Ilse.');
    const some = merged(text, { 'request.number': 'AC-00007', team: '' });
    expect(said(some.paragraphs)).toBe('Dear colleague, AC-00007 waits.');
    expect(some.left).toEqual([
      { sentence: 'It is for {team}.', names: ['team'] },
      { sentence: 'Yours, {happened.by}.', names: ['happened.by'] },
    ]);
    expect(KINDS).toHaveLength(18);
  });

  it('leaves out whole sentences where something is empty, and nothing else; what stands in values ends none', () => {
    const NAMES = ['visitor', 'request.due', 'happened.text'];
    const word = fc.constantFrom('Come', 'early', 'to pier 2', 'please', 'and wait');
    const slot = fc.record({ name: fc.constantFrom(...NAMES), otherwise: fc.option(fc.constantFrom('us', 'soon')) });
    const sentence = fc.array(fc.oneof(word, slot), { minLength: 1, maxLength: 5 });
    const values = fc.dictionary(
      fc.constantFrom(...NAMES),
      fc.constantFrom('', 'Dr. X. Y.', 'one! two? Three', 'plain {visitor}'),
    );
    let dropped = 0;
    let kept = 0;
    fc.assert(
      fc.property(fc.array(sentence, { minLength: 1, maxLength: 5 }), values, (sentences, known) => {
        const written = sentences.map(
          (pieces) => `So ${pieces.map((piece) => (typeof piece === 'string' ? piece : pieceText(piece))).join(' ')}.`,
        );
        // Said the slow way: each sentence by itself, word by word.
        const expected = sentences.flatMap((pieces) => {
          const told = pieces.map((piece) =>
            typeof piece === 'string' ? piece : known[piece.name] || (piece.otherwise ?? null),
          );
          return told.includes(null) ? [] : [`So ${told.join(' ')}.`];
        });
        const { paragraphs, left } = merged(written.join(' '), known);
        expect(said(paragraphs)).toBe(expected.join(' '));
        expect(left).toHaveLength(sentences.length - expected.length);
        dropped += left.length;
        kept += expected.length;
      }),
    );
    expect(Math.min(dropped, kept)).toBeGreaterThan(20);
  });

  it('is the same from its pieces, and names each thing once', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', '{', '}', '|', '.', 'request.number', '{visitor}', ' ') }),
        (text) => {
          expect(piecesOf(text).map(pieceText).join('')).toBe(text);
          const named = piecesOf(text).flatMap((piece) => (typeof piece === 'string' ? [] : [piece.name]));
          expect(namedInText(text)).toEqual([...new Set(named)]);
        },
      ),
    );
  });
});

describe('a notice in words', () => {
  const names: NoticeNames = {
    ...{ group: (key) => key, person: (id) => id, stage: (key) => key, path: (id) => id, field: (key) => key },
    program: (key) => `program ${key}`,
    roster: (key) => key,
    condition: (text) => text,
    deadlines: { calendar: 'desk', leads: 'leads', deadlines: [] },
  };
  const rule: NoticeRule = {
    ...{ key: 'one', name: 'One', on: { is: 'arrived' }, to: ['team', { group: 'stores' }], subject: '', text: '' },
    ...{ answers: false, goes: { goes: 'digest', at: '08:00', days: [5, 1, 2, 3, 4] } },
  };
  const inWords = (more: Partial<NoticeRule>): string =>
    noticeInWords({ ...rule, ...more }, names)
      .map((words) => english(words))
      .join(' ');

  it('says when it happens, to whom it goes, and when', () => {
    expect(inWords({ when: 'a = 1', urgent: 'b = 2' })).toBe(
      'When a request arrives, only if a = 1: email to the team and stores. It goes at 08:00 with what else happened, Monday to Friday. At once if b = 2.',
    );
    expect(inWords({ on: { is: 'becomes' }, when: 'a = 1', goes: { goes: 'gathered', minutes: 5 } })).toBe(
      'When this becomes true: a = 1: email to the team and stores. It goes 5 minutes after the first, with what else happened by then.',
    );
    expect(inWords({ on: { is: 'stage', stages: ['x', 'y'] }, to: [], goes: { goes: 'at-once' } })).toBe(
      'When a request reaches “x or y”: email to nobody yet. It goes at once.',
    );
    const atOnce = { goes: { goes: 'at-once' } } as const;
    expect(inWords({ ...atOnce, ways: ['email', 'text'] })).toBe(
      'When a request arrives: email and text message to the team and stores. It goes at once.',
    );
    expect([inWords({ ...atOnce, ways: ['text'] }), inWords({ ...atOnce, ways: [] })]).toEqual([
      'When a request arrives: text message to the team and stores. It goes at once.',
      'When a request arrives: line under the bell to the team and stores. It goes at once.',
    ]);
    expect(inWords({ ...atOnce, to: [{ program: 'log' }] })).toBe(
      'When a request arrives: it is told to the program program log.',
    );
    expect(inWords({ ...atOnce, to: ['team', { program: 'log' }] })).toBe(
      'When a request arrives: email to the team. It goes at once. The program program log is told at once.',
    );
    expect(
      inWords({ on: { is: 'ring', deadline: 'gone', ring: 'r' }, goes: { goes: 'digest', at: '07:30', days: [6, 1] } }),
    ).toContain('It goes at 07:30 with what else happened, Monday and Saturday.');
  });
});
