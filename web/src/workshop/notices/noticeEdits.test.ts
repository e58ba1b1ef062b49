import { asking, designOf } from '@tolvek/core/form';
import { noticeIn, OCCASIONS, usualIn, waysOfUsual } from '@tolvek/core/telling';
import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import {
  addNotice,
  asUsual,
  editNotice,
  editUsual,
  firstDeparture,
  firstOccasion,
  freshNotice,
  moveNotice,
  noticeIsOff,
  noticesOf,
  otherwiseIn,
  removeNotice,
  saidIn,
  translatedIn,
  withOtherwise,
} from './noticeEdits.ts';

const FORM = designOf(
  { told: english, title: 'Visits', team: 'estates', approvers: 'leads', calendar: 'desk' },
  '{visitor}',
  [asking('visitor', 'Visitor', { kind: 'text' })],
);
const words = { name: 'New request', text: 'Look at {request.number}.' };
const two = addNotice(addNotice(FORM, 'arrived', words), 'stage', { ...words, name: 'Stage' });
const [first, second] = noticesOf(two).rules.map(({ key }) => key) as [string, string];

describe('the notices of a draft', () => {
  it('are added for whoever works on a request, each by a key of its own, as far as the form has an occasion', () => {
    expect(noticesOf(FORM)).toEqual({ usual: [], rules: [] });
    expect(noticesOf(two).rules.map(({ name, on, to, goes }) => [name, on, to, goes])).toEqual([
      ['New request', { is: 'arrived' }, ['working'], { goes: 'at-once' }],
      ['Stage', { is: 'stage', stages: [] }, ['working'], { goes: 'at-once' }],
    ]);
    expect(new Set([first, second, freshNotice(two)]).size).toBe(3);
    const unringed = { ...FORM, deadline: { ...FORM.deadline, deadlines: [] } };
    expect(OCCASIONS.filter((is) => firstOccasion(is, unringed) === null)).toEqual(['ring']);
    expect(addNotice(unringed, 'ring', words)).toBe(unringed);
    expect(OCCASIONS.filter((is) => firstOccasion(is, FORM) === null)).toEqual([]);
  });

  it('lose conditions that say nothing, and what is urgent where all of it goes at once', () => {
    const edit = (next: Parameters<typeof editNotice>[2]) => noticeIn(noticesOf(editNotice(two, first, next)), first);
    expect(edit({ when: 'visitor != null' })).toHaveProperty('when', 'visitor != null');
    expect(edit({ when: ' ' })).not.toHaveProperty('when');
    expect(edit({ urgent: 'true' })).not.toHaveProperty('urgent');
    const later = edit({ goes: firstDeparture('digest'), urgent: 'true' });
    expect([later?.urgent, later?.goes]).toEqual(['true', { goes: 'digest', at: '08:00', days: [1, 2, 3, 4, 5] }]);
    expect(noticeIn(noticesOf(editNotice(two, first, { name: 'X' })), second)).toEqual(
      noticeIn(noticesOf(two), second),
    );
  });

  it('are put aside, moved and removed one by one', () => {
    const off = noticeIsOff(two, first, true);
    expect(noticesOf(off).rules.map((rule) => rule.off ?? false)).toEqual([true, false]);
    expect(noticesOf(noticeIsOff(off, second, true)).rules.map((rule) => rule.off)).toEqual([true, true]);
    expect(noticesOf(noticeIsOff(off, first, false))).toEqual(noticesOf(two));
    expect(noticesOf(moveNotice(two, first, 1)).rules.map(({ key }) => key)).toEqual([second, first]);
    expect(moveNotice(two, first, -1).notices?.rules).toEqual(two.notices?.rules);
    expect(noticesOf(removeNotice(two, first)).rules.map(({ key }) => key)).toEqual([second]);
  });
});

describe('a usual notice', () => {
  it('stands in the draft while something of it is otherwise, and no longer', () => {
    const worded = editUsual(FORM, 'received', { text: 'Thanks.' });
    expect(noticesOf(worded).usual).toEqual([{ kind: 'received', subject: '', text: 'Thanks.' }]);
    const off = editUsual(worded, 'received', { isOff: true });
    expect(usualIn(noticesOf(off), 'received')).toEqual({ kind: 'received', subject: '', text: 'Thanks.', off: true });
    // Its words stay while it is not sent, and are there again.
    expect(editUsual(off, 'received', { subject: 'Hello' }).notices?.usual[0]).toHaveProperty('off', true);
    expect(noticesOf(editUsual(off, 'received', { isOff: false }))).toEqual(noticesOf(worded));
    expect(noticesOf(editUsual(worded, 'received', { text: ' ' })).usual).toEqual([]);
    expect(noticesOf(asUsual(off, 'received')).usual).toEqual([]);
    // How it goes is as usual by email alone, whatever else is said of it.
    const texted = editUsual(worded, 'received', { ways: ['email', 'text'] });
    expect(noticesOf(texted).usual).toEqual([{ ...noticesOf(worded).usual[0], ways: ['email', 'text'] }]);
    expect(editUsual(texted, 'received', { text: '' }).notices?.usual[0]).toHaveProperty('ways');
    expect(noticesOf(editUsual(texted, 'received', { ways: ['email'] }))).toEqual(noticesOf(worded));
    expect(noticesOf(editUsual(FORM, 'received', { ways: [] })).usual[0]?.ways).toEqual([]);
    expect(
      waysOfUsual({ usual: [{ kind: 'message', subject: '', text: '', ways: [] }], rules: [] }, 'message'),
    ).toEqual(['email']);
  });
});

describe('the words of a notice', () => {
  it('have other words for what is empty wherever that is named', () => {
    const text = 'Dear {visitor}, {visitor|you} and {request.team}.';
    expect(withOtherwise(text, 'visitor', 'guest')).toBe('Dear {visitor|guest}, {visitor|guest} and {request.team}.');
    expect(withOtherwise(text, 'visitor', '')).toBe('Dear {visitor}, {visitor} and {request.team}.');
    expect(withOtherwise(text, 'request.team', 'no {one}|')).toContain('{request.team|no one}');
    expect([otherwiseIn(text, 'visitor'), otherwiseIn(text, 'request.team')]).toEqual(['you', '']);
  });

  it('are said in other languages until they are empty there', () => {
    const notice = { subject: 'Hello', text: 'Come in.' };
    const translations = translatedIn(notice, 'de', 'text', 'Kommen Sie herein.');
    expect(translations).toEqual({ de: { text: { of: 'Come in.', says: 'Kommen Sie herein.' } } });
    const said = { ...notice, translations };
    expect([saidIn(said, 'de', 'text'), saidIn(said, 'de', 'subject'), saidIn(notice, 'de', 'text')]).toEqual([
      ...['Kommen Sie herein.', '', ''],
    ]);
    // What it was made from may be otherwise by now: it is still there to be looked at.
    expect(saidIn({ ...said, text: 'Come in, please.' }, 'de', 'text')).toBe('Kommen Sie herein.');
    expect(translatedIn(said, 'de', 'text', ' ')).toBeUndefined();
  });
});
