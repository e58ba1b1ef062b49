import { isSame } from '../design/index.ts';
import type { Scope } from '../expression/index.ts';
import { type Field, isFilled, requestScope } from '../register/index.ts';
import { type FormDesign, OWN_PARTS, type OwnPart, type Part, partKey, type Question } from './design.ts';
import { hasOwn } from './own.ts';
import { expressionInWords, partName, presetInWords, ruleInWords } from './words.ts';

/** One thing that differs between two states of a form: in a sentence, and on either side. */
export interface DesignChange {
  readonly page: 'questions' | 'rules' | 'routing' | 'approval';
  readonly at: string;
  readonly words: string;
  /** Empty when there was nothing. */
  readonly before: string;
  /** Empty when nothing is left. */
  readonly after: string;
  /** Whether it changes the register, and with it every form that fills it. */
  readonly reaches: 'form' | 'register';
}

const differs = (a: unknown, b: unknown): boolean => !isSame(a, b);

/** What a draft would change against a release, in the order of work. */
export function compareDesigns(before: FormDesign | null, after: FormDesign): readonly DesignChange[] {
  const asked = after.parts.filter((part) => part.part === 'question').length;
  if (!before)
    return [
      {
        page: 'questions',
        at: 'title',
        words: `First release: ${asked} ${asked === 1 ? 'question' : 'questions'}.`,
        before: '',
        after: after.title,
        reaches: 'form',
      },
    ];
  const scopes = { before: requestScope(before.fields), after: requestScope(after.fields) };
  return [
    ...wordingChanges(before, after),
    ...fieldChanges(before, after, scopes.before, scopes.after),
    ...partChanges(before, after),
    ...ruleChanges(before, after, scopes.before, scopes.after),
    ...tableChanges(before, after),
  ];
}

function wordingChanges(before: FormDesign, after: FormDesign): readonly DesignChange[] {
  const lines = [
    ['title', `Title: “${before.title}” becomes “${after.title}”.`],
    ['intro', 'The introduction changes.'],
    ['subject', 'What requests are called in lists changes.'],
  ] as const;
  return lines.flatMap(([name, words]) =>
    before[name] === after[name]
      ? []
      : [
          {
            page: 'questions' as const,
            at: name,
            words,
            before: before[name],
            after: after[name],
            reaches: name === 'subject' ? ('register' as const) : ('form' as const),
          },
        ],
  );
}

function fieldChanges(before: FormDesign, after: FormDesign, was: Scope, is: Scope): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const add = (
    field: Field,
    words: string,
    old: string,
    fresh: string,
    reaches: DesignChange['reaches'] = 'register',
  ): void => void changes.push({ page: 'questions', at: field.key, words, before: old, after: fresh, reaches });
  const source = (field: Field, scope: Scope): string =>
    field.source === 'computed'
      ? `computed: ${expressionInWords(field.formula, scope)}`
      : field.source === 'carried'
        ? `${field.live ? 'live' : 'frozen'}, carried by ${field.reference}`
        : field.source;
  const preset = (field: Field, design: FormDesign, scope: Scope): string =>
    isFilled(field) && field.preset ? presetInWords(field, field.preset, design, scope) : '';
  for (const field of after.fields) {
    const old = before.fields.find((each) => each.key === field.key);
    if (!old) {
      add(
        field,
        `New field in the register: “${field.label}”${field.source === 'asked' ? '' : `, ${field.source}`}.`,
        '',
        field.label,
      );
      continue;
    }
    if (old.label !== field.label)
      add(field, `Field “${old.label}” is now called “${field.label}”.`, old.label, field.label);
    if (differs(old.type, field.type))
      add(field, `“${field.label}”: its options or limits change.`, typeInWords(old), typeInWords(field));
    if (source(old, was) !== source(field, is))
      add(
        field,
        `“${field.label}”: ${field.source === 'computed' ? 'how it is computed changes' : 'where it comes from changes'}.`,
        source(old, was),
        source(field, is),
      );
    if (preset(old, before, was) !== preset(field, after, is))
      add(field, `“${field.label}”: its default changes.`, preset(old, before, was), preset(field, after, is), 'form');
  }
  for (const field of before.fields)
    if (!after.fields.some((each) => each.key === field.key))
      add(
        field,
        `The form no longer knows “${field.label}”; the register keeps what it holds.`,
        field.label,
        '',
        'form',
      );
  return changes;
}

/** The settings of a kind in words, for reading two of them side by side. */
function typeInWords({ type }: Field): string {
  switch (type.kind) {
    case 'choice':
    case 'choices':
      return [
        ...type.options.map(
          (option) =>
            `${option.label}${option.colour ? `, ${option.colour}` : ''}${option.retired ? ' (retired)' : ''}`,
        ),
        ...(type.other ? ['something else'] : []),
      ].join('; ');
    case 'level':
      return type.levels.map((level) => `${level.label}${level.retired ? ' (retired)' : ''}`).join(' < ');
    case 'line-items':
      return `${type.columns.map((column) => column.label).join(', ')}${type.most === undefined ? '' : `; at most ${type.most} lines`}`;
    default:
      return Object.entries(type)
        .map(([name, value]) => (name === 'kind' ? String(value) : `${LIMIT_WORDS[name] ?? name} ${value}`))
        .join(', ');
  }
}

const LIMIT_WORDS: Readonly<Record<string, string>> = {
  least: 'at least',
  most: 'at most',
  notBefore: 'not before',
  notBeforeToday: 'today or later:',
  notBeforeNow: 'now or later:',
};

const questionName = (part: Question): string => `${part.asks}${part.help ? ` (${part.help})` : ''}`;

function partChanges(before: FormDesign, after: FormDesign): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const add = (at: string, words: string, old = '', fresh = ''): void =>
    void changes.push({ page: 'questions', at, words, before: old, after: fresh, reaches: 'form' });
  const oldOf = (key: string): Part | undefined => before.parts.find((part) => partKey(part) === key);
  for (const part of after.parts) {
    const key = partKey(part);
    const old = oldOf(key);
    const name = partName(after, key);
    if (!old) add(key, part.part === 'question' ? `“${name}” is asked.` : `New ${part.part}: “${name}”.`, '', name);
    else if (old.part === 'question' && part.part === 'question') {
      if (old.required !== part.required)
        add(
          key,
          `“${name}” ${part.required ? 'becomes required' : 'is no longer required'}.`,
          old.required ? 'required' : 'can be left empty',
          part.required ? 'required' : 'can be left empty',
        );
      if (old.asks !== part.asks || old.help !== part.help)
        add(key, `“${name}”: its wording changes.`, questionName(old), questionName(part));
      if ((old.whenHidden ?? 'ignored') !== (part.whenHidden ?? 'ignored'))
        add(
          key,
          `“${name}”: what becomes of its answer when it goes away changes.`,
          old.whenHidden ?? 'ignored',
          part.whenHidden ?? 'ignored',
        );
    } else if (differs(old, part)) add(key, `The ${part.part} “${name}” changes.`, partName(before, key), name);
  }
  for (const part of before.parts) {
    const key = partKey(part);
    if (after.parts.some((each) => partKey(each) === key)) continue;
    add(
      key,
      part.part === 'question'
        ? `“${partName(before, key)}” is no longer asked; what was answered stays.`
        : `The ${part.part} “${partName(before, key)}” goes away.`,
      partName(before, key),
    );
  }
  const kept = (design: FormDesign, other: FormDesign): string[] =>
    design.parts.map(partKey).filter((key) => other.parts.some((part) => partKey(part) === key));
  const [was, is] = [kept(before, after), kept(after, before)];
  if (differs(was, is))
    add(
      'title',
      'The order on the form changes.',
      was.map((key) => partName(before, key)).join(', '),
      is.map((key) => partName(after, key)).join(', '),
    );
  return changes;
}

function ruleChanges(before: FormDesign, after: FormDesign, was: Scope, is: Scope): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const add = (at: string, words: string, old: string, fresh: string): void =>
    void changes.push({ page: 'rules', at, words, before: old, after: fresh, reaches: 'form' });
  for (const rule of after.rules) {
    const old = before.rules.find((each) => each.id === rule.id);
    const fresh = ruleInWords(rule, after, is);
    if (!old) add(rule.id, `New rule “${rule.name}”.`, '', fresh);
    else if (differs(old, rule)) {
      const earlier = ruleInWords(old, before, was);
      if (old.on !== rule.on) add(rule.id, `Rule “${rule.name}” is turned ${rule.on ? 'on' : 'off'}.`, earlier, fresh);
      else if (earlier !== fresh) add(rule.id, `Rule “${rule.name}” changes.`, earlier, fresh);
      else
        add(
          rule.id,
          `Rule “${old.name}”: its name or description changes.`,
          `${old.name} ${old.says}`.trim(),
          `${rule.name} ${rule.says}`.trim(),
        );
    }
  }
  for (const rule of before.rules)
    if (!after.rules.some((each) => each.id === rule.id))
      add(rule.id, `Rule “${rule.name}” goes away.`, ruleInWords(rule, before, was), '');
  const order = (design: FormDesign, other: FormDesign): string[] =>
    design.rules.flatMap((rule) => (other.rules.some((each) => each.id === rule.id) ? [rule.name] : []));
  const ids = (design: FormDesign, other: FormDesign): string[] =>
    design.rules.flatMap((rule) => (other.rules.some((each) => each.id === rule.id) ? [rule.id] : []));
  if (differs(ids(before, after), ids(after, before)))
    add('', 'The order of the rules changes.', order(before, after).join(', '), order(after, before).join(', '));
  return changes;
}

function tableChanges(before: FormDesign, after: FormDesign): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const rows = (design: FormDesign): string => `${design.routing.rows.length} rows`;
  const add = (
    page: DesignChange['page'],
    words: string,
    old: string,
    fresh: string,
    reaches: DesignChange['reaches'],
  ): void => void changes.push({ page, at: page, words, before: old, after: fresh, reaches });
  const unique = (design: FormDesign): string =>
    design.unique.map((rule) => rule.fields.map((key) => partName(design, key)).join(' + ')).join('; ');
  if (differs(before.unique, after.unique))
    add('questions', 'What must not be asked twice changes.', unique(before), unique(after), 'register');
  for (const part of OWN_PARTS) {
    const name = OWN_WORDS[part];
    const page = part === 'routing' ? 'routing' : 'approval';
    if (hasOwn(before, part) !== hasOwn(after, part))
      add(
        page,
        hasOwn(after, part)
          ? `The form has ${name} of its own from now on.`
          : `The form follows the usual ${name.replace(/^an? /, '')} of its register from now on.`,
        '',
        '',
        'form',
      );
    if (!differs(before[part], after[part])) continue;
    const [old, fresh] =
      part === 'routing'
        ? [rows(before), rows(after)]
        : part === 'approval'
          ? [stepsOf(before), stepsOf(after)]
          : ['', ''];
    add(page, CHANGE_WORDS[part], old, fresh, hasOwn(after, part) ? 'form' : 'register');
  }
  return changes;
}

const stepsOf = ({ approval }: FormDesign): string => approval.steps.map((step) => step.label).join(', ');

const OWN_WORDS: Readonly<Record<OwnPart, string>> = {
  routing: 'a routing table',
  approval: 'an approval path',
  deadline: 'a deadline plan',
};
const CHANGE_WORDS: Readonly<Record<OwnPart, string>> = {
  routing: 'The routing table changes.',
  approval: 'The approval path changes.',
  deadline: 'The deadline plan changes.',
};
