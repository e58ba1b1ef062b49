import { findingsOf } from '@tolvek/core/form';
import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { GROUPS } from '../people.ts';
import {
  budgets,
  concern,
  dive,
  kit,
  kitCheck,
  kitStore,
  laboratory,
  methods,
  purchase,
  rooms,
  school,
  skills,
  tripReport,
  VOCABULARIES,
  vessel,
  vessels,
} from './index.ts';

const things = [vessels, kitStore, budgets, rooms, methods, vessel];
const keyOf = (title: string): string => title.toLowerCase().replaceAll(' ', '-');

describe('the forms of the scenario', () => {
  it.each(
    Object.entries({
      concern,
      dive,
      kit,
      laboratory,
      purchase,
      school,
      vessel,
      vessels,
      kitStore,
      budgets,
      rooms,
      methods,
      tripReport,
      kitCheck,
      skills,
    }),
  )('%s has no errors among its findings', (_, form) => {
    const findings = findingsOf(form.design, {
      groups: new Map(GROUPS.map((group) => [group.key, group.name])),
      plan: { rules: [] },
      form: 'form',
      outside: form.doors.outside,
      vocabularies: VOCABULARIES,
      registers: things.map((each) => ({
        key: keyOf(each.design.title),
        name: each.design.title,
        fields: each.design.fields,
        stages: [{ key: 'in_use', label: 'In use' }],
        restricted: [],
      })),
    });
    expect(findings.filter((finding) => finding.severity === 'error')).toEqual([]);
    // Of the cautions only those that are meant: staff are not picked at an outside door, and boats
    // and codes may be looked through there.
    const meant = /people from outside will not see this question|can search “(Vessels|Budget codes)”/;
    expect(
      english(findings.map((finding) => finding.message)).filter((message: string) => !meant.test(message)),
    ).toEqual([]);
  });
});
