import { english } from '@tolvek/words/english';
import { expect, it } from 'vitest';
import { type DoorDesign, newDoor } from '../door/index.ts';
import type { FormDesign } from '../form/index.ts';
import { OUTSIDE_STEPS, outsideFindings } from './outsidePeople.ts';

const form: Pick<FormDesign, 'fields' | 'parts'> = {
  fields: [
    { key: 'what', label: 'What', type: { kind: 'text' }, source: 'asked' },
    { key: 'theirs', label: 'Their address', type: { kind: 'email' }, source: 'asked' },
    { key: 'lead', label: 'Lead', type: { kind: 'person', from: [] }, source: 'asked' },
  ],
  parts: [
    { part: 'question', field: 'what', asks: 'What do you need?', help: '', required: true },
    { part: 'question', field: 'theirs', asks: 'Who is it for?', help: '', required: false },
  ],
};
const fine = {
  ...{ form, isReleased: true, isStopped: false, now: Date.UTC(2026, 10, 29) },
  stages: [{ label: 'In hand', publicLabel: 'We are on it' }],
  reads: { answers: 'read', made: 'read', staffOnly: 'hidden' },
} as const;
const found = (change: Partial<DoorDesign>, around: Partial<Parameters<typeof outsideFindings>[1]> = {}) =>
  outsideFindings({ ...newDoor('confirmed-address', 'Outside'), ...change }, { ...fine, ...around }).map(
    ({ step, message }) => `${step}: ${english(message)}`,
  );
const some = { in: { anyOf: ['boats'] }, outOf: [] };

it('finds nothing where all is as it is meant', () => expect(found({})).toEqual([]));

it('finds at each step what would surprise, and nothing twice', () => {
  const cases: readonly [string, readonly string[]][] = [
    ['whose: The form does not ask for “Lead”', found({ whose: 'lead' })],
    ['whose: “Their address” is not required', found({ whose: 'theirs' })],
    ['who: The form has no release', found({}, { isReleased: false })],
    ['who: The form is stopped', found({}, { isStopped: true })],
    ['who: The door is not open', found({ open: false })],
    ['who: The door is not open', found({ opensAt: Date.UTC(2027, 0, 1) })],
    ['who: Requests come in without anybody being asked', found({ proves: 'never' })],
    [
      'asking: These questions have no words of their own',
      found({}, { form: { ...form, parts: form.parts.map((part) => ({ ...part, asks: '' })) } as typeof form }),
    ],
    ['past: They see that something is in progress', found({}, { reads: { ...fine.reads, answers: 'hidden' } })],
    ['past: Requesters have no word for “In hand”', found({}, { stages: [{ label: 'In hand', publicLabel: ' ' }] })],
  ];
  for (const [begins, all] of cases) {
    expect(all).toHaveLength(1);
    expect(all[0]?.startsWith(begins)).toBe(true);
  }
  const steps = new Set(cases.map(([begins]) => begins.split(':')[0]));
  expect(found({ audience: some }).map((each) => each.split(':')[0])).toEqual(['refused', 'past']);
  expect(found({ audience: some, says: { others: 'Ask Boats.' }, follows: 'device' })).toEqual([]);
  expect(found({ unnamed: true }).map((each) => each.split(':')[0])).toEqual(['who', 'past']);
  expect(found({ unnamed: true, slowsRobots: true }).map((each) => each.split(':')[0])).toEqual(['past']);
  expect(OUTSIDE_STEPS.every((step) => steps.has(step) || step === 'refused')).toBe(true);
});
