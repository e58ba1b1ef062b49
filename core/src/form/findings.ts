import { checkExpression, namesRead, parseExpression, verdictOn } from '../expression/index.ts';
import { requestScope } from '../register/index.ts';
import { routingFindings } from '../routing/index.ts';
import type { FormDesign } from './design.ts';

/** Something a check found in a draft. Errors stop a release; cautions do not. */
export interface Finding {
  readonly severity: 'error' | 'caution';
  readonly page: 'questions' | 'rules' | 'routing' | 'approval';
  /** The field key, rule id or row id it is about. */
  readonly at: string;
  readonly message: string;
}

/** All that is wrong or doubtful in a draft, errors first. `groups` are the keys of the groups that exist. */
export function findingsOf(design: FormDesign, groups: ReadonlySet<string>): readonly Finding[] {
  const scope = requestScope(design.fields);
  const found: Finding[] = [];
  const add = (severity: Finding['severity'], page: Finding['page'], at: string, message: string): void => void found.push({ severity, page, at, message });

  if (design.title.trim() === '') add('error', 'questions', 'title', 'The form has no title.');
  if (design.questions.length === 0) add('error', 'questions', 'title', 'The form asks nothing yet. Add a question.');
  const labels = new Map<string, string>();
  for (const field of design.fields) {
    const label = field.label.trim().toLowerCase();
    if (label === '') add('error', 'questions', field.key, 'A field has no label.');
    else if (labels.has(label)) add('caution', 'questions', field.key, `Two fields are called “${field.label}”; people can’t tell them apart in the ledger.`);
    labels.set(label, field.key);
    if (field.type.kind === 'choice') {
      const offered = field.type.options.filter((option) => !option.retired);
      if (offered.length === 0) add('error', 'questions', field.key, `“${field.label}” offers no options.`);
      if (field.type.options.some((option) => option.label.trim() === '')) add('error', 'questions', field.key, `An option of “${field.label}” has no label.`);
    }
  }
  for (const [, key] of design.subject.matchAll(/\{(\w+)\}/g)) {
    if (!design.fields.some((field) => field.key === key)) add('error', 'questions', 'subject', `The subject names a field that does not exist: {${key}}.`);
  }

  for (const rule of design.rules) {
    const parsed = parseExpression(rule.when);
    const problems = parsed.ok ? checkExpression(parsed.value, scope, 'yes-no') : parsed.findings;
    for (const problem of problems) add('error', 'rules', rule.id, `Rule “${rule.name}”: ${problem.message}`);
    const verdict = parsed.ok && problems.length === 0 && rule.on ? verdictOn(parsed.value, scope) : null;
    if (verdict?.kind === 'always') add('caution', 'rules', rule.id, `Rule “${rule.name}” always holds: its questions are always asked, and the rule can go.`);
    if (verdict?.kind === 'never') add('caution', 'rules', rule.id, `Rule “${rule.name}” can never hold: its questions are never asked.`);
    if (rule.show.length === 0) add('caution', 'rules', rule.id, `Rule “${rule.name}” shows nothing. Choose a question for it.`);
    for (const key of rule.show) {
      if (!design.questions.some((question) => question.field === key)) add('error', 'rules', rule.id, `Rule “${rule.name}” shows a question that is not on the form.`);
      if (parsed.ok && rule.on && namesRead([parsed.value]).includes(key)) add('caution', 'rules', rule.id, `Rule “${rule.name}” depends on the question it shows.`);
    }
  }

  for (const problem of routingFindings(design.routing, scope, groups)) add(problem.severity, 'routing', problem.row, problem.message);
  if (!groups.has(design.approval.step.group)) add('error', 'approval', 'step', 'The approval step names a group that does not exist.');
  return found.sort((a, b) => Number(a.severity === 'caution') - Number(b.severity === 'caution'));
}
