import { english } from '@tolvek/words/english';
import { expect, it } from 'vitest';
import type { NoticeRule } from '../../telling/index.ts';
import { asking, designOf } from '../recipes/index.ts';
import { findingsOf } from './findings.ts';

it('what is wrong in a notice is found for things as for requests: both have them', () => {
  const design = designOf(
    { told: english, title: 'Kit', team: 'stores', approvers: 'leads', calendar: 'desk' },
    '{name}',
    [asking('name', 'Name', { kind: 'text' })],
  );
  const rule: NoticeRule = {
    ...{ key: 'one', name: 'One', on: { is: 'arrived' }, to: [{ group: 'gone' }], subject: '', text: 'It came.' },
    ...{ answers: false, goes: { goes: 'at-once' } },
  };
  const around = {
    ...{
      groups: new Map([
        ['stores', 'Stores'],
        ['leads', 'Leads'],
      ]),
      outside: false,
      vocabularies: [],
      registers: [],
    },
    ...{ plan: { rules: [] }, form: 'kit' },
  };
  const found = (holds: 'requests' | 'things') =>
    findingsOf({ ...design, notices: { usual: [], rules: [rule] } }, { ...around, holds }).flatMap((each) =>
      each.page === 'notices' ? [english(each.message)] : [],
    );
  const gone = 'A group that gets “One” does not exist any more. Choose others.';
  expect([found('requests'), found('things')]).toEqual([[gone], [gone]]);
});
