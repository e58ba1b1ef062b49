import { type Compiled, compile } from './compile.ts';
import { parseExpression } from './parse.ts';
import type { Scope } from './scope.ts';

const CANT_SAY: Compiled = () => null;

/** An expression as it is written, compiled; one that can’t be read says nothing, whatever it is asked. */
export function compileText(text: string, scope: Scope): Compiled {
  const parsed = parseExpression(text);
  return parsed.ok ? compile(parsed.value, scope) : CANT_SAY;
}
