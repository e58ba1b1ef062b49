import { said } from '@tolvek/words';
import { EMPTY, isBlank, type KindWork, wrong } from './kind.ts';

export const yesNo: KindWork<'yes-no'> = {
  read: (raw) => {
    if (isBlank(raw)) return EMPTY;
    if (raw === true || raw === 'yes' || raw === 'true') return { state: 'value', value: true };
    if (raw === false || raw === 'no' || raw === 'false') return { state: 'value', value: false };
    return wrong(said('answers:mustBeYesNo'), said('answers:chooseOneOfTwo'));
  },
  show: (value) => (value ? 'Yes' : 'No'),
  say: (value) => said(value ? 'common:yes' : 'common:no'),
  typed: (value) => Boolean(value),
  toExpression: (value) => Boolean(value),
  fromExpression: (value) => (typeof value === 'boolean' ? value : undefined),
  scopeType: () => ({ kind: 'yes-no' }),
  stored: () => ({ ordered: false, written: (value) => (typeof value === 'boolean' ? Number(value) : undefined) }),
};
