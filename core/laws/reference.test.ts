import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import {
  BUILT_INS,
  checkExpression,
  compile,
  equal,
  parseExpression,
  Scope,
  type Value,
} from '../src/expression/index.ts';
import { referenceExamples, referenceInMarkdown } from '../src/expression/reference.ts';

const scope = new Scope([
  { name: 'calendar', label: 'Working calendar', type: { kind: 'context', entries: {} } },
  { name: 'vocabularies', label: 'Vocabularies', type: { kind: 'context', entries: {} } },
]);
const slots: readonly Value[] = [
  { open: [true, true, true, true, true, false, false], closed: ['2026-12-25'] },
  { species: { mammals: '', seals: 'mammals', grey_seal: 'seals' } },
];

function evaluate(text: string): Value {
  const parsed = parseExpression(text);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.findings[0]?.message}`);
  return compile(parsed.value, scope)(slots, null);
}

describe('the reference', () => {
  it.each(referenceExamples())('%s gives %s', (call, gives) =>
    expect([evaluate(call), equal(evaluate(call), evaluate(gives))]).toEqual([evaluate(gives), true]),
  );

  it.each(referenceExamples().filter(([, gives]) => gives !== 'null'))('%s has no findings', (call) => {
    const parsed = parseExpression(call);
    expect(parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings).toEqual([]);
  });

  it('has an example for every function that needs no person', () => {
    expect(
      [...BUILT_INS.values()].filter((builtIn) => builtIn.examples.length === 0).map((builtIn) => builtIn.name),
    ).toEqual(['is member']);
  });

  it('is the page in docs; npm run reference writes it anew', () => {
    expect(readFileSync(join(import.meta.dirname, '../../docs/expressions.md'), 'utf8')).toBe(
      referenceInMarkdown(english),
    );
  });
});
