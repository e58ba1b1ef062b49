import { english } from '@tolvek/words/english';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AccessRule } from '../src/access/index.ts';
import {
  answerSchema,
  formFile,
  groupsNeeded,
  isUnanswered,
  prepareCompletion,
  protectedHere,
  RECIPES,
  settledHere,
} from '../src/form/index.ts';
import { answersTo, anyForm, asDesign, FACTS } from './anyForm.ts';
import { often } from './often.ts';

describe('the shape of a form’s answers', () => {
  it('is a JSON Schema that takes everything the form takes', () => {
    let taken = 0;
    fc.assert(
      fc.property(
        anyForm.chain((form) => fc.tuple(fc.constant(form), answersTo(form))),
        ([form, answers]) => {
          const completion = prepareCompletion(form)(answers, FACTS);
          const asked = Object.fromEntries(
            Object.entries(answers).filter(([key]) =>
              completion.asked.some((question) => question.field === key && !question.locked),
            ),
          );
          if (completion.problems.some((problem) => !isUnanswered(problem))) return;
          taken += 1;
          const validate = new Ajv2020({ strict: false }).compile(answerSchema(asDesign(form), english));
          expect(validate(asked) ? [] : [asked, validate.errors]).toEqual([]);
        },
      ),
      { numRuns: often(160) },
    );
    expect(taken).toBeGreaterThan(often(40));
  });

  it('refuses what no answer to the form can be', () => {
    const design = RECIPES.find((recipe) => recipe.key === 'purchase')?.make({
      told: english,
      title: 'P',
      team: 'a',
      approvers: 'b',
      calendar: 'c',
    });
    if (!design) throw new Error('no recipe');
    const validate = new Ajv2020({ strict: false }).compile(answerSchema(design, english));
    expect(validate({ purpose: 'Pumps', lines: [{ what: 'Seal', count: 2, price: '3.10', vat: 'full' }] })).toBe(true);
    for (const wrong of [
      { stranger: 1 },
      { lines: 'many' },
      { lines: [{ net: 1 }] },
      { lines: [{ vat: 'most' }] },
      { purpose: ['a'] },
    ])
      expect([wrong, validate(wrong)]).toEqual([wrong, false]);
  });
});

describe('a form taken along', () => {
  it('names what it needs, and settles with other groups in their place', () => {
    fc.assert(
      fc.property(anyForm, (form) => {
        const design = asDesign(form);
        const closed: AccessRule = {
          id: 'closed',
          name: 'Closed',
          fields: 'all',
          audience: { in: { everyone: true }, outOf: ['boats', 'safety'], requester: 'out' },
          level: 'hidden',
        };
        const file = formFile(
          design,
          {
            groups: [
              { key: 'boats', name: 'Boats' },
              { key: 'safety', name: 'Safety' },
            ],
            calendars: [],
            vocabularies: FACTS.vocabularies,
            registers: [],
          },
          { rules: [closed], staysIn: true },
        );
        expect(file.needs.groups).toContainEqual({ key: 'boats', name: 'Boats' });
        // Who protects its answers has to be here, or somebody in their place.
        expect(file.needs.groups).toContainEqual({ key: 'safety', name: 'Safety' });
        expect(protectedHere(file.access ?? { rules: [], staysIn: false }, { safety: 'guards' })).toEqual({
          rules: [{ ...closed, audience: { ...closed.audience, outOf: ['boats', 'guards'] } }],
          staysIn: true,
        });
        const moved = settledHere(JSON.parse(JSON.stringify(file)).design, {
          groups: { boats: 'vessels' },
          calendars: { desk: 'hours' },
          vocabularies: { species: 'kinds' },
          registers: { vessels: 'fleet' },
        });
        expect(groupsNeeded(moved)).not.toContain('boats');
        expect(moved.deadline.calendar).toBe('hours');
        expect(
          settledHere(moved, {
            groups: { vessels: 'boats' },
            calendars: { hours: 'desk' },
            vocabularies: { kinds: 'species' },
            registers: { fleet: 'vessels' },
          }),
        ).toEqual(design);
      }),
    );
  });

  it('has the groups that conditions name put in their place as well', () => {
    const when = 'list contains(requester.groups, "divers") or is member(requester, "boats")';
    const boat = {
      kind: 'reference' as const,
      register: 'vessels',
      shows: ['name'],
      among: 'all' as const,
      offered: 'is member(requester, "divers")',
    };
    const fields = [{ key: 'boat', label: 'Boat', type: boat, source: 'asked' as const }];
    const design = {
      ...asDesign({ fields, parts: [], rules: [] }),
      rules: [{ id: 'r', name: 'R', says: '', when, then: [], otherwise: [], on: true, runs: 'filling' as const }],
    };
    expect(groupsNeeded(design)).toEqual(['boats', 'divers']);
    const moved = settledHere(design, {
      groups: { divers: 'swimmers' },
      calendars: {},
      vocabularies: {},
      registers: {},
    });
    expect(moved.fields[0]?.type).toEqual({ ...boat, offered: 'is member(requester, "swimmers")' });
    expect(moved.rules[0]?.when).toBe('list contains(requester.groups, "swimmers") or is member(requester, "boats")');
  });
});
