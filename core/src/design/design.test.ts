import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  beginEditing,
  compareContents,
  type DesignKind,
  designFile,
  type Editing,
  type EditingEvent,
  editingAfter,
  fromDesignFile,
  mergeContents,
  waitsToBeKept,
} from './index.ts';

/** A kind of design made for these tests: a card with lines. */
interface Card {
  readonly title: string;
  readonly note: string;
  readonly lines: readonly { readonly id: string; readonly text: string; readonly grams: number }[];
}

const rules = {
  lists: { lines: (item: Readonly<Record<string, unknown>>) => String(item.id) },
  nameOf: (way: readonly string[]) =>
    way[0] === 'lines' ? `the line “${way[1] ?? ''}”${way[2] ? ` (${way[2]})` : ''}` : `the ${way[0] ?? 'card'}`,
};
const CARD: DesignKind<Card> = {
  kind: 'card',
  titleOf: (card) => card.title,
  compare: (before, after) => compareContents(before, after, rules),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, rules),
  findings: (card) =>
    card.title === '' ? [{ severity: 'error', page: 'title', at: 'title', message: 'The card has no title.' }] : [],
  refersTo: (card) => card.lines.map((line) => ({ kind: 'ware', key: line.text, at: line.id })),
};
const BASE: Card = {
  title: 'Soup',
  note: '',
  lines: [
    { id: 'a', text: 'kelp', grams: 40 },
    { id: 'b', text: 'barley', grams: 100 },
  ],
};

describe('comparing setting by setting', () => {
  it('names each place once, with both sides', () => {
    const after = {
      ...BASE,
      note: 'Stir',
      lines: [
        { id: 'b', text: 'barley', grams: 120 },
        { id: 'c', text: 'salt', grams: 2 },
      ],
    };
    expect(english(CARD.compare(BASE, after))).toEqual([
      { page: 'note', at: 'note', words: 'The note changes.', before: '', after: 'Stir' },
      { page: 'lines', at: 'lines b', words: 'The line “b” (grams) changes.', before: '100', after: '120' },
      { page: 'lines', at: 'lines c', words: 'The line “c” is new.', before: '', after: '' },
      { page: 'lines', at: 'lines a', words: 'The line “a” is removed.', before: '', after: '' },
    ]);
  });

  it('tells of something that gets a setting, or loses one, that it changes, and is neither new nor gone', () => {
    const more = { ...BASE, lines: BASE.lines.map((line) => (line.id === 'a' ? { ...line, rare: true } : line)) };
    const words = (before: Card, after: Card) => CARD.compare(before, after).map((change) => english(change.words));
    expect(words(BASE, more)).toEqual(['The line “a” (rare) changes.']);
    expect(words(more, BASE)).toEqual(['The line “a” (rare) changes.']);
  });

  it('shows either side only as far as people can read it', () => {
    const shown = (before: unknown, after: unknown): unknown => {
      const [change] = compareContents({ it: before }, { it: after }, { lists: {}, nameOf: () => 'it' });
      return [change?.before, change?.after];
    };
    expect(shown(['boats', 'deck'], ['boats'])).toEqual(['boats, deck', 'boats']);
    expect(english(shown(true, false))).toEqual(['Yes', 'No']);
    expect(shown(undefined, { key: 'p', label: 'Packed' })).toEqual(['', 'Packed']);
    expect(shown(undefined, { id: 'r', name: 'Closed', fields: ['x'] })).toEqual(['', 'Closed']);
    expect(shown([{ a: 1 }], [])).toEqual(['', '']);
    expect(shown(2, { a: 1 })).toEqual(['2', '']);
  });

  it('tells another order, and nothing where nothing differs', () => {
    expect(
      english(CARD.compare(BASE, { ...BASE, lines: [...BASE.lines].reverse() }).map((each) => each.words)),
    ).toEqual(['The line “”: the order changes.']);
    expect(CARD.compare(BASE, structuredClone(BASE))).toEqual([]);
    expect(CARD.compare(null, BASE)).toHaveLength(1);
  });
});

describe('a file of a design', () => {
  const schema = {
    safeParse: (value: unknown) =>
      typeof value === 'object' && value !== null && 'lines' in value
        ? ({ success: true, data: value as Card } as const)
        : ({ success: false } as const),
  };

  it('reads back what was written, with what it names', () => {
    const file = JSON.parse(JSON.stringify(designFile(CARD, BASE)));
    expect(fromDesignFile(CARD, schema, file)).toEqual({ content: BASE });
    expect(file.needs.map((each: { key: string }) => each.key)).toEqual(['kelp', 'barley']);
  });

  it.each([
    ['of another kind', { format: 'tolvek-form', version: 1, content: BASE }, 'another kind'],
    ['of a newer release', { format: 'tolvek-card', version: 2, content: BASE }, 'newer version'],
    ['with something else in it', { format: 'tolvek-card', version: 1, content: {} }, 'changed by hand'],
    ['that is no file at all', 7, 'another kind'],
  ])('%s is refused in words', (_, file, words) => {
    expect(english(fromDesignFile(CARD, schema, file))).toEqual({ wrong: expect.stringContaining(words) });
  });
});

const after = (before: Editing<Card>, event: EditingEvent<Card>) => editingAfter(CARD, before, event);

describe('editing a draft', () => {
  it('goes back and forth over what was changed, and forgets the way forward at a new change', () => {
    const title = (text: string): EditingEvent<Card> => ({
      did: 'changed',
      edit: (card) => ({ ...card, title: text }),
    });
    let editing = beginEditing(BASE, 1);
    for (const text of ['One', 'Two', 'Three']) editing = after(editing, title(text));
    for (const did of ['undone', 'undone', 'redone'] as const) editing = after(editing, { did });
    expect([editing.content.title, editing.past.length, editing.future.length]).toEqual(['Two', 2, 1]);
    editing = after(editing, title('Four'));
    expect([after(editing, { did: 'redone' }).content.title, editing.future]).toEqual(['Four', []]);
    expect(after(beginEditing(BASE, 1), { did: 'undone' }).content).toBe(BASE);
  });

  it('adds no step for a change that changes nothing', () => {
    const editing = beginEditing(BASE, 1);
    expect(after(editing, { did: 'changed', edit: (card) => card })).toBe(editing);
  });

  it('asks where both changed the same, and keeps all else of either side', () => {
    const mine = after(beginEditing(BASE, 1), {
      did: 'changed',
      edit: (card) => ({ ...card, title: 'Mine', note: 'My note' }),
    });
    const theirs = { ...BASE, title: 'Theirs', lines: [] };
    const met = after(mine, { did: 'met', sent: mine.content, theirs, version: 2 });
    expect(english([met.state, met.trouble])).toEqual([
      'changed elsewhere',
      'Someone else changed the same in the meantime: the title. Your other changes are saved. Choose which version to keep.',
    ]);
    expect(waitsToBeKept(met)).toBe(false);
    for (const [pick, title] of [
      ['mine', 'Mine'],
      ['theirs', 'Theirs'],
    ] as const) {
      const settled = after(met, { did: 'settled', pick, theirs, version: 2 });
      expect([settled.content, settled.state]).toEqual([{ title, note: 'My note', lines: [] }, 'kept']);
      expect(waitsToBeKept(settled)).toBe(true);
    }
  });

  /** Two pages and a server that refuses what is sent on an older version. */
  class Both {
    server = { content: BASE, version: 1 };
    pages = [beginEditing(BASE, 1), beginEditing(BASE, 1)];
    sent: (Card | null)[] = [null, null];

    did(page: number, event: EditingEvent<Card>): void {
      this.pages[page] = after(this.pages[page] as Editing<Card>, event);
    }
    send(page: number): void {
      const editing = this.pages[page] as Editing<Card>;
      if (!waitsToBeKept(editing) || this.sent[page]) return;
      this.sent[page] = editing.content;
      this.did(page, { did: 'sent' });
    }
    answer(page: number): void {
      const sent = this.sent[page];
      if (!sent) return;
      this.sent[page] = null;
      const { version } = this.pages[page] as Editing<Card>;
      if (version === this.server.version) {
        this.server = { content: sent, version: version + 1 };
        this.did(page, { did: 'stored', ...this.server });
      } else this.did(page, { did: 'met', sent, theirs: this.server.content, version: this.server.version });
    }
    settle(page: number): void {
      if (this.pages[page]?.state !== 'changed elsewhere') return;
      this.did(page, { did: 'settled', pick: 'mine', theirs: this.server.content, version: this.server.version });
    }
  }

  it('by two at once ends with both seeing the same, and no line lost that one of them added', () => {
    let [merges, clashes] = [0, 0];
    const step = fc.record({
      page: fc.constantFrom(0, 1),
      does: fc.constantFrom('add', 'title', 'send', 'answer', 'settle'),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 20, maxLength: 60, size: 'max' }), (steps) => {
        const both = new Both();
        const added: string[] = [];
        const settle = (): void => {
          for (const page of [0, 1]) {
            both.settle(page);
            both.send(page);
            both.answer(page);
          }
        };
        for (const [index, { page, does }] of steps.entries()) {
          const before = both.pages[page]?.version;
          if (does === 'add') {
            added.push(`n${index}`);
            const line = { id: `n${index}`, text: 'x', grams: index };
            both.did(page, { did: 'changed', edit: (card) => ({ ...card, lines: [...card.lines, line] }) });
          } else if (does === 'title')
            both.did(page, { did: 'changed', edit: (card) => ({ ...card, title: `By ${page} at ${index}` }) });
          else if (does === 'send') both.send(page);
          else if (does === 'answer') both.answer(page);
          else both.settle(page);
          if (both.pages[page]?.state === 'changed elsewhere') clashes += 1;
          else if (does === 'answer' && both.pages[page]?.version !== before) merges += 1;
        }
        // A page hears of the other’s last change when it next sends: one more of each settles all.
        for (let round = 0; round < 4; round += 1) settle();
        for (const page of [0, 1]) {
          both.did(page, { did: 'changed', edit: (card) => ({ ...card, note: `${card.note}.` }) });
          settle();
          settle();
        }
        const ids = both.server.content.lines.map((line) => line.id);
        for (const id of added) expect(ids).toContain(id);
        expect(both.pages.map((page) => waitsToBeKept(page))).toEqual([false, false]);
      }),
      { numRuns: 300 },
    );
    console.log(`editing by two: ${merges} kept or merged, ${clashes} clashes`);
    expect(Math.min(merges, clashes)).toBeGreaterThan(50);
  });
});
