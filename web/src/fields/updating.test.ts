import { type FormRule, prepareCompletion } from '@tolvek/core/form';
import type { Field, RawAnswers, RequestFacts } from '@tolvek/core/register';
import { describe, expect, it } from 'vitest';
import {
  canRemove,
  changeableIn,
  changesOf,
  completedOverTheirs,
  foundBy,
  type Theirs,
  updatingWith,
  whichProblems,
} from './updating.ts';

const FACTS = {
  ...{ requesterIsOutside: false, requesterId: null, requesterGroups: [], department: '', door: 'staff' },
  ...{ profile: { fields: [], values: {} }, today: '2026-11-23', now: '2026-11-23T10:00:00Z', calendar: null },
  ...{ files: [], vocabularies: [], references: [], numbers: {}, people: [] },
} as unknown as RequestFacts;
const text = (key: string): Field => ({ key, label: key.toUpperCase(), type: { kind: 'text' }, source: 'asked' });
const FIELDS = [text('buoy'), text('depth'), text('owner'), text('deep')];
const DEEP: FormRule = {
  ...{ id: 'deep', name: '', says: '', when: 'depth = "90"', on: true, runs: 'filling', otherwise: [] },
  then: [{ do: 'set', field: 'deep', value: '"yes"' }],
};
const form = {
  fields: FIELDS,
  parts: FIELDS.map(({ key: field }) => ({
    part: 'question' as const,
    field,
    asks: '',
    help: '',
    required: field === 'depth',
  })),
  rules: [DEEP],
};
const complete = prepareCompletion(form);
const entry = (id: string, stood: RawAnswers): Theirs =>
  ({
    ...{
      id,
      number: id.toUpperCase(),
      subject: id,
      stood: { buoy: null, depth: null, owner: null, deep: null, ...stood },
    },
    ...{ values: { fields: [], withheld: [] }, files: [], references: [], waiting: null },
  }) as unknown as Theirs;
const NORTH = entry('north', { buoy: 'North', depth: '40', owner: 'Ida' });
const NORTH_TOO = entry('other', { buoy: 'North', depth: '7' });
const SOUTH = entry('south', { buoy: 'South', depth: '12' });

const about = (
  theirs: readonly Theirs[],
  answers: RawAnswers,
  more: { adds?: boolean; beside?: boolean; entry?: string; cleared?: string[]; by?: string[]; sent?: boolean } = {},
) => {
  const { adds = true, beside = false, by = ['buoy'], sent = false } = more;
  const updates = { ...{ whose: null, by, adds, beside, waits: false, sent }, theirs: [...theirs] };
  const changeable = changeableIn({ updates, facts: FACTS }, complete);
  const typed = { entry: more.entry, cleared: more.cleared };
  const updating = updatingWith(complete, { updates, fields: FIELDS }, changeable, { answers, typed, facts: FACTS });
  if (!updating) throw new Error('It changes what is there.');
  return updating;
};
const fields = (problems: readonly { readonly field: string }[]) => problems.map(({ field }) => field);

describe('what of theirs somebody means', () => {
  it('is what has the same answers, in whatever case; unknown until they are said', () => {
    expect(about([NORTH, SOUTH], {}).about.is).toBe('unknown');
    expect(about([NORTH, SOUTH], { buoy: 'north' }).about).toMatchObject({ is: 'one', one: { id: 'north' } });
    expect(about([NORTH, SOUTH], { buoy: 'East' }).about.is).toBe('none');
  });

  it('has to be said where several fit, and where another one may stand beside', () => {
    const several = about([NORTH, NORTH_TOO], { buoy: 'North' });
    expect([several.about.is, several.about.among.map(({ id }) => id)]).toEqual(['several', ['north', 'other']]);
    expect(fields(whichProblems(several))).toEqual(['form']);
    expect(about([NORTH, NORTH_TOO], { buoy: 'North' }, { entry: 'other' }).about).toMatchObject({
      one: { id: 'other' },
    });
    expect(about([NORTH], { buoy: 'North' }, { beside: true }).about.is).toBe('several');
    expect(about([NORTH], { buoy: 'North' }, { beside: true, entry: 'another' }).about.is).toBe('another');
    expect(about([NORTH], {}, { by: [], sent: true }).about).toMatchObject({ is: 'one', one: { id: 'north' } });
  });

  it('is refused where nothing fits and nothing is added, and where nothing is said', () => {
    expect(whichProblems(about([SOUTH], { buoy: 'East' }, { adds: false }))).toHaveLength(1);
    expect(whichProblems(about([SOUTH], { buoy: 'East' }))).toEqual([]);
    expect(whichProblems(about([SOUTH], { buoy: 'South' }))).toHaveLength(1);
    expect(whichProblems(about([SOUTH], { buoy: 'South', owner: 'Per' }))).toEqual([]);
    expect(whichProblems(null)).toEqual([]);
  });

  it('can be filled in by choosing it; another one is found by nothing', () => {
    const updating = about([NORTH, SOUTH], {});
    expect([foundBy(updating, 'south'), foundBy(updating, 'another')]).toEqual([{ buoy: 'South' }, { buoy: null }]);
  });
});

describe('what answers come to over what stands there', () => {
  const changed = (says: RawAnswers) =>
    changesOf(complete, { fields: FIELDS, by: ['buoy'] }, NORTH, says, FACTS).map(({ field, before, after }) => [
      ...[field.key, before, after],
    ]);

  it('is what is said, and what rules make of it; what it was found by stays', () => {
    expect(changed({ buoy: 'North', owner: 'Per' })).toEqual([['owner', 'Ida', 'Per']]);
    expect(changed({ buoy: 'north', depth: '90' })).toEqual([
      ['depth', '40', '90'],
      ['deep', undefined, 'yes'],
    ]);
    expect(changed({ owner: 'Ida' })).toEqual([]);
    expect(changed({ owner: null })).toEqual([['owner', 'Ida', undefined]]);
  });

  it('takes away what is marked, and nothing that has to stand there', () => {
    const says = about([NORTH], { buoy: 'North' }, { cleared: ['owner', 'depth'] }).says;
    expect(says).toEqual({ buoy: 'North', owner: null, depth: null });
    expect(fields(completedOverTheirs(complete, NORTH, says, FACTS).problems)).toEqual(['depth']);
    const updating = about([NORTH], { buoy: 'North' });
    const completion = completedOverTheirs(complete, NORTH, updating.says, FACTS);
    expect(completion.problems).toEqual([]);
    const may = (field: string) => canRemove(updating, completion, field);
    expect([may('owner'), may('depth'), may('buoy'), may('nothing')]).toEqual([true, false, null, null]);
  });
});
