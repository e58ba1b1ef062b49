import type { Scope } from '@tolvek/core/expression';
import type { Field } from '@tolvek/core/register';
import { subjectsOfTotal, type Total, type TotalsShape } from '@tolvek/core/view';
import { firstCondition } from '../../conditions/firstCondition.ts';
import { subjectsFor } from './viewDraft.ts';

/** A total of a kind as it is when one begins, with what another is of; null where there is nothing of which it could be. */
export function firstTotal(is: Total['is'], fields: readonly Field[], scope: Scope, like?: Total): Total | null {
  const sums = subjectsFor('sums', fields);
  const of = (like ? subjectsOfTotal(like) : []).find((each) => sums.includes(each)) ?? sums[0];
  switch (is) {
    case 'count':
      return { is, of: null };
    case 'share':
      return { is, when: firstCondition(scope), word: '' };
    case 'rate': {
      const per = sums.find((each) => each !== of);
      return of === undefined || per === undefined ? null : { is, of, per };
    }
    default:
      return of === undefined ? null : { is, of };
  }
}

/** Totals by one thing as they are when they begin: how many there are, and the sum of what there is first to add up. */
export function totalsBy(by: string, fields: readonly Field[]): TotalsShape {
  const [of] = subjectsFor('sums', fields);
  return {
    ...{ is: 'totals', by, each: 'month', parts: null },
    totals: [{ is: 'count', of: null }, ...(of === undefined ? [] : [{ is: 'sum' as const, of }])],
  };
}
