import { readFileSync } from 'node:fs';
import { RECIPES } from '@tolvek/core/form';
import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { formFileJsonSchema, formFileSchema } from './index.ts';

const needs = { groups: [], calendars: [] };

describe('the form file', () => {
  it('has its schema in docs; npm run reference writes it anew', () => {
    expect(JSON.parse(readFileSync(new URL('../../docs/form-file.schema.json', import.meta.url), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(formFileJsonSchema())),
    );
  });

  it('takes every recipe, and refuses a part it does not know', () => {
    for (const recipe of RECIPES) {
      const design = recipe.make({
        told: english,
        title: recipe.key,
        team: 'boats',
        approvers: 'boats',
        calendar: 'desk',
      });
      expect(formFileSchema.parse({ format: 'tolvek-form', version: 3, design, needs })).toMatchObject({
        design: { title: recipe.key },
      });
      expect(
        formFileSchema.safeParse({ format: 'tolvek-form', version: 3, design: { ...design, extra: 1 }, needs }).success,
      ).toBe(false);
    }
  });

  it('is read as an earlier version wrote it', () => {
    const [recipe] = RECIPES;
    if (!recipe) throw new Error('There is no recipe.');
    const design = recipe.make({ told: english, title: 'Old', team: 'boats', approvers: 'leads', calendar: 'desk' });
    const running = (kind: string) => ({
      ...{ key: 'serial', label: 'Serial', source: 'given' },
      type: { kind, prefix: 'N-', digits: 4 },
    });
    const decided = (needsApproval: boolean) => ({
      ...{ team: 'boats', priority: 'normal', workingDays: 3, needsApproval },
    });
    const { calendar, leads } = design.deadline;
    const deadline = { calendar, remindBefore: 4 * 3_600_000, escalateAfter: 60_000, escalateTo: leads };
    const old = {
      ...design,
      deadline,
      fields: [...design.fields, running('auto-number')],
      approval: { step: { id: 'head', label: 'Head', group: 'leads' } },
      routing: {
        ...design.routing,
        rows: [{ id: 'dear', note: '', cells: {}, outcome: decided(true) }],
        otherwise: decided(false),
      },
    };
    const read = formFileSchema.parse({ format: 'tolvek-form', version: 1, design: old, needs });
    expect(read.version).toBe(4);
    const [finish, ...more] = read.design.deadline.deadlines;
    expect([read.design.deadline.leads, finish?.key, more]).toEqual([leads, 'finish', []]);
    expect(finish?.rings.map(({ key, at, tells }) => [key, at, tells])).toEqual([
      ['reminder', -4 * 3_600_000, ['working']],
      ['escalation', 60_000, ['leads', 'working']],
    ]);
    expect(read.design.fields.at(-1)).toEqual(running('running-number'));
    const steps = [{ id: 'head', label: 'Head', seats: [{ group: 'leads' }], needed: 1 }];
    expect(read.design.approval).toEqual({ paths: [{ id: 'path', label: '', steps }] });
    const { rows, otherwise } = read.design.routing;
    expect([rows[0]?.outcome, otherwise]).toEqual(
      ['path', null].map((path) => ({ team: 'boats', priority: 'normal', workingDays: 3, path })),
    );
    // As the second version has it.
    const second = { ...old, fields: read.design.fields, approval: { steps } };
    expect(formFileSchema.parse({ format: 'tolvek-form', version: 2, design: second, needs }).design).toEqual(
      read.design,
    );
    // As the third version has it.
    const third = { ...read.design, deadline };
    expect(formFileSchema.parse({ format: 'tolvek-form', version: 3, design: third, needs }).design).toEqual(
      read.design,
    );
    // The name of then is for files of then alone.
    expect(formFileSchema.safeParse({ format: 'tolvek-form', version: 4, design: old, needs }).success).toBe(false);
  });
});
