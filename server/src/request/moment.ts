import { asksOnlyWritten, conditionHolds, hangs, type RequestMoment } from '@tolvek/core/access';
import { todayAt } from '../people/settle.ts';
import { nowIn, type Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { factsOfRequest } from './facts.ts';
import { fieldsOf } from './fields.ts';
import type { ShownRow } from './queries.ts';
import { standingOf, writtenOf } from './standing.ts';

const NOTHING_HOLDS = () => false;

/**
 * What of a stored request the rules of its register’s plan hang on: as it stands now. What a condition asks is looked
 * up when one is asked. `always`: also where no rule in force asks anything.
 */
export function momentOf(db: Reader, request: ShownRow, register: RegisterRow, always = false): RequestMoment {
  const { rules, readers = [] } = register.access;
  if (!always && readers.length === 0 && !rules.some(hangs))
    return { stage: request.stage, day: '', holds: NOTHING_HOLDS };
  // What no rule asks for takes no time.
  let moment: number | undefined;
  const now = (): number => (moment ??= nowIn(db));
  const known = new Map<string, boolean>();
  let asked: Parameters<typeof conditionHolds>[1] | undefined;
  let facts: ReturnType<typeof factsOfRequest> | undefined;
  let standing: ReturnType<typeof standingOf> | undefined;
  const holds = (condition: string): boolean => {
    let found = known.get(condition);
    if (found === undefined) {
      asked ??= {
        ...{ fields: fieldsOf(db, register, request), values: request.values },
        facts: () => (facts ??= factsOfRequest(db, request, register, now())),
        standing: () => (standing ??= standingOf(db, request, now())),
      };
      const light = asksOnlyWritten(condition)
        ? { ...asked, standing: () => writtenOf(db, request, condition) }
        : asked;
      known.set(condition, (found = conditionHolds(condition, light)));
    }
    return found;
  };
  let day: string | undefined;
  return {
    stage: request.stage,
    holds,
    get day() {
      return (day ??= todayAt(db, now()));
    },
  };
}
