import { checkExpression } from './check.ts';
import type { ExpressionFinding } from './finding.ts';
import { parseExpression } from './parse.ts';
import type { Scope } from './scope.ts';

/** What is wrong with a condition as it is written; nothing where it can be read and says yes or no. */
export function conditionFindings(text: string, scope: Scope): readonly ExpressionFinding[] {
  const parsed = parseExpression(text);
  return parsed.ok ? checkExpression(parsed.value, scope, 'yes-no') : parsed.findings;
}
