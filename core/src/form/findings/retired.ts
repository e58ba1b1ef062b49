import { said } from '@tolvek/words';
import { allSteps } from '../../approval/index.ts';
import { chainOf, type Node, parseExpression, parseTests } from '../../expression/index.ts';
import type { Kind, Vocabulary } from '../../register/index.ts';
import type { FormDesign } from '../design.ts';
import type { Add } from './finding.ts';

/**
 * Conditions and cells that ask for an option nobody can choose any more. Old requests may still
 * have it, so it is a caution.
 */
export function retiredFindings(design: FormDesign, vocabularies: readonly Vocabulary[], add: Add): void {
  const retired = new Map<string, { readonly option: string; readonly field: string }>(
    design.fields.flatMap((field) =>
      retiredPicks(field.type, vocabularies).map(
        ({ key, label: option }) => [`${field.key} ${key}`, { option, field: field.label }] as const,
      ),
    ),
  );
  if (retired.size === 0) return;
  const goneIn = (condition: string) => {
    const parsed = parseExpression(condition);
    return parsed.ok ? askedOptions(parsed.value).flatMap((name) => retired.get(name) ?? []) : [];
  };
  for (const rule of design.rules)
    for (const gone of goneIn(rule.when))
      add('caution', 'rules', rule.id, said('findings:ruleRetired', { rule: rule.name, ...gone }));
  for (const step of allSteps(design.approval))
    for (const gone of goneIn(step.when ?? ''))
      add('caution', 'approval', 'step', said('findings:stepRetired', { step: step.label, ...gone }));
  for (const [index, row] of design.routing.rows.entries()) {
    for (const column of design.routing.columns) {
      const tests = parseTests(row.cells[column.id] ?? '');
      if (!tests.ok) continue;
      const keys = tests.value.flatMap((test) =>
        test.kind === 'equal' && test.operand.kind === 'literal'
          ? [`${column.input.trim()} ${test.operand.value}`]
          : [],
      );
      for (const gone of keys.flatMap((name) => retired.get(name) ?? []))
        add('caution', 'routing', row.id, said('findings:rowRetired', { row: index + 1, ...gone }));
    }
  }
}

/** What a field no longer offers: retired options, retired and merged terms. */
function retiredPicks(
  type: Kind,
  vocabularies: readonly Vocabulary[],
): readonly { readonly key: string; readonly label: string }[] {
  if (type.kind === 'choice' || type.kind === 'choices') return type.options.filter((option) => option.retired);
  if (type.kind !== 'term' && type.kind !== 'terms') return [];
  return (
    vocabularies
      .find((each) => each.key === type.vocabulary)
      ?.terms.filter((term) => term.retired || term.now !== undefined) ?? []
  );
}

/** `field option` for every test of a field against one of its options. */
function askedOptions(node: Node): readonly string[] {
  if (node.kind === 'and' || node.kind === 'or') return chainOf(node, node.kind).flatMap(askedOptions);
  if (node.kind === 'compare' && node.left.kind === 'name' && node.right.kind === 'literal')
    return [`${node.left.name} ${node.right.value}`];
  if (node.kind === 'in' && node.of.kind === 'name') {
    const { name } = node.of;
    return node.tests.flatMap((test) =>
      test.kind === 'equal' && test.operand.kind === 'literal' ? [`${name} ${test.operand.value}`] : [],
    );
  }
  if (node.kind !== 'call') return [];
  const [list, item] = node.args;
  if (node.name === 'list contains' && list?.kind === 'name' && item?.kind === 'literal')
    return [`${list.name} ${item.value}`];
  return node.args.flatMap(askedOptions);
}
