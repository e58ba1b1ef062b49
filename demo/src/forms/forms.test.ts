import { findingsOf } from '@tolvek/core/form';
import { describe, expect, it } from 'vitest';
import { GROUPS } from '../people.ts';
import { concern, dive, kit, laboratory, purchase, school, vessel } from './index.ts';

describe('the forms of the scenario', () => {
  it.each(Object.entries({ concern, dive, kit, laboratory, purchase, school, vessel }))('%s has no errors among its findings', (_, form) => {
    const findings = findingsOf(form.design, { groups: new Set(GROUPS.map((group) => group.key)), outside: form.doors.outside });
    expect(findings.filter((finding) => finding.severity === 'error')).toEqual([]);
    // Of the cautions only those that are meant: staff are not picked at an outside door.
    expect(findings.map((finding) => finding.message).filter((message) => !message.includes('not asked at the outside door'))).toEqual([]);
  });
});
