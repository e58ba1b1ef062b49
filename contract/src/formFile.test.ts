import { readFileSync } from 'node:fs';
import { RECIPES } from '@tolvek/core/form';
import { describe, expect, it } from 'vitest';
import { formFileJsonSchema, formFileSchema } from './index.ts';

describe('the form file', () => {
  it('has its schema in docs; npm run reference writes it anew', () => {
    expect(JSON.parse(readFileSync(new URL('../../docs/form-file.schema.json', import.meta.url), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(formFileJsonSchema())),
    );
  });

  it('takes every recipe, and refuses a part it does not know', () => {
    const needs = { groups: [], calendars: [] };
    for (const recipe of RECIPES) {
      const design = recipe.make({ title: recipe.label, team: 'boats', approvers: 'boats', calendar: 'desk' });
      expect(formFileSchema.parse({ format: 'tolvek-form', version: 1, design, needs })).toMatchObject({
        design: { title: recipe.label },
      });
      expect(
        formFileSchema.safeParse({ format: 'tolvek-form', version: 1, design: { ...design, extra: 1 }, needs }).success,
      ).toBe(false);
    }
  });
});
