import { changeInWords, type RequestChange } from '@tolvek/core/request';
import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { peopleIn } from './changeNames.ts';

const CHANGES: readonly RequestChange[] = [
  { kind: 'handler', from: null, to: 'ada' },
  { kind: 'seat', from: 'bo', to: 'ada' },
  { kind: 'shared', with: '@ada', until: null },
  { kind: 'links-ended', of: 'ada' },
  { kind: 'link-sent', of: 'ada' },
  { kind: 'undelivered', of: 'ada', reason: 'mailbox full' },
  { kind: 'values', why: 'updated', form: 'My skills', by: 'ada', changes: [] },
];

describe('the people whom the words of a change name', () => {
  it.each(CHANGES)('are looked up by what the change says: $kind', (change) => {
    const known = new Set(peopleIn(change));
    const names = { stage: String, group: String, calendar: String };
    const told = english(changeInWords(change, { ...names, person: (id) => (known.has(id) ? 'Ada Quill' : '') }));
    expect(told).toContain('Ada Quill');
  });
});
