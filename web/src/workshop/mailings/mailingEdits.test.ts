import { type FormDesign, RECIPES } from '@tolvek/core/form';
import { MAILING, type MailingDesign, newMailing } from '@tolvek/core/mailing';
import type { Field } from '@tolvek/core/register';
import { describe, expect, it } from 'vitest';
import {
  changeReminder,
  dueIn,
  goesWhen,
  isAbout,
  peopleFields,
  personQuestions,
  registerOf,
  requestQuestions,
  STARTS,
  startOf,
  withoutReminder,
  withReminder,
} from './mailingEdits.ts';

const asked = (key: string, type: Field['type']): Field => ({ key, label: key, type, source: 'asked' });
const question = (field: string) => ({ part: 'question' as const, field, asks: '', help: '', required: false });
const form = (...fields: Field[]): FormDesign =>
  ({ fields, parts: fields.map(({ key }) => question(key)), rules: [] }) as unknown as FormDesign;
const WHO = asked('who', { kind: 'person', from: [] });
const THING = asked('thing', { kind: 'reference', register: 'kit', shows: ['name'], among: 'all' });
const KIT = {
  key: 'kit',
  fields: [asked('name', { kind: 'text' }), asked('keeper', { kind: 'person', from: [] })],
  stages: [{ key: 'in_use' }, { key: 'done' }],
};
const begins = (start: (typeof STARTS)[number], of: FormDesign, registers = [KIT]) =>
  startOf(start, { name: 'Any', door: 'any', form: of, fills: 'any', registers });
const BOTH = form(WHO, THING, asked('text', { kind: 'text' }));

describe('a mailing as it begins', () => {
  it('has what it is for filled in, and is offered only where the form asks for what it is about', () => {
    expect(STARTS.map((start) => begins(start, form()) !== null)).toEqual([true, false, true, false, false]);
    expect(STARTS.map((start) => begins(start, BOTH) !== null)).toEqual([true, true, true, true, true]);
    expect(begins('afterwards', BOTH, [])).toBeNull();
    expect(begins('afterwards', BOTH)?.about).toMatchObject({ register: 'kit', field: 'thing', stages: ['done'] });
    expect(begins('keepers', BOTH)?.to).toEqual({ named: 'keeper' });
    expect(begins('each-other', BOTH)?.about).toEqual({ is: 'each-other', field: 'who' });
    // Only whom it goes to is left to say.
    for (const start of STARTS) {
      const mailing = begins(start, BOTH);
      const found = mailing ? MAILING.findings(mailing, null).map(({ at }) => at) : [];
      expect([start, found.filter((at) => at !== 'to')]).toEqual([start, []]);
    }
  });

  it('knows which questions say what it is about', () => {
    expect(personQuestions(BOTH).map(({ key }) => key)).toEqual(['who']);
    expect(requestQuestions(BOTH).map(({ key }) => key)).toEqual(['thing']);
    // A field that nothing asks for says nothing.
    expect(requestQuestions({ ...BOTH, parts: [] })).toEqual([]);
    expect([registerOf(THING, [KIT])?.key, registerOf(WHO, [KIT])]).toEqual(['kit', undefined]);
    expect(peopleFields(KIT).map(({ key }) => key)).toEqual(['keeper']);
    expect(RECIPES.length).toBeGreaterThan(0);
  });
});

describe('a change of a mailing', () => {
  const plain = newMailing('Any', 'any');
  const kit: MailingDesign = {
    ...plain,
    to: { named: 'keeper' },
    about: { is: 'requests', register: 'kit', field: 'thing', stages: [], when: '' },
    when: { is: 'reached', days: 1 },
    counts: 'mean',
  };

  it('leaves nothing that fits no more', () => {
    const nothing = isAbout(kit, { is: 'nothing' });
    expect([nothing.to, nothing.when, nothing.counts]).toEqual([
      { audience: { in: { anyOf: [] }, outOf: [] } },
      { is: 'by-hand' },
      undefined,
    ]);
    const other = isAbout(kit, { is: 'requests', register: 'boats', field: 'boat', stages: [], when: '' });
    expect([other.to, other.when, other.counts]).toEqual([{ named: '~requester' }, kit.when, 'mean']);
    const same = isAbout(kit, { is: 'requests', register: 'kit', field: 'thing', stages: ['done'], when: '' });
    expect(same.to).toEqual({ named: 'keeper' });
    expect(dueIn(plain, null).reminders).toEqual([]);
    expect(dueIn({ ...plain, when: { is: 'every', period: 'week' } }, null).reminders).toEqual(plain.reminders);
    const weekly: MailingDesign = { ...plain, when: { is: 'every', period: 'week' }, dueIn: null };
    expect(goesWhen(weekly, { is: 'by-hand' }).dueIn).toBe(5);
    expect(goesWhen(weekly, { is: 'every', period: 'month' }).dueIn).toBeNull();
  });

  it('adds reminders on days of their own, changes and removes them', () => {
    const three = withReminder(withReminder(plain));
    expect(three.reminders.map(({ days }) => days)).toEqual([1, 2, 3]);
    expect(changeReminder(three, 1, { side: 'after' }).reminders[1]).toEqual({ days: 2, side: 'after' });
    expect(withoutReminder(three, 0).reminders.map(({ days }) => days)).toEqual([2, 3]);
  });
});
