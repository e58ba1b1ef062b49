import type { Scope } from '@tolvek/core/expression';
import { ConditionBuilder } from '../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../conditions/firstCondition.ts';
import { say } from '../wire/words.ts';

interface OptionalConditionProps {
  /** FEEL; empty for none. */
  readonly condition: string;
  readonly scope: Scope;
  readonly set: (condition: string) => void;
}

/** A condition that may be there or not. */
export const OptionalCondition = ({ condition, scope, set }: OptionalConditionProps) =>
  condition === '' ? (
    <button type="button" className="text-green underline" onClick={() => set(firstCondition(scope))}>
      {say('editions:addCondition')}
    </button>
  ) : (
    <>
      <ConditionBuilder condition={condition} scope={scope} set={set} />
      <button type="button" className="text-green underline" onClick={() => set('')}>
        {say('editions:dropCondition')}
      </button>
    </>
  );
