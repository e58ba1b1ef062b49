import { LANGUAGE_NAMES, LANGUAGES, type Said, said, type Words } from '@tolvek/words';
import { type ApprovalPath, type ApprovalStep, pathName } from '../approval/index.ts';
import { deadlineName, lengthInWords } from '../deadline/index.ts';
import { isSame } from '../design/index.ts';
import { conditionOf, type Scope } from '../expression/index.ts';
import { type Field, isFilled, requestScope } from '../register/index.ts';
import { hitsOf, rowChanges } from '../routing/index.ts';
import {
  type NoticePlan,
  type NoticeWay,
  noticeIn,
  USUAL_KINDS,
  USUAL_NOTICES,
  type UsualNotice,
  usualIn,
} from '../telling/index.ts';
import { type Edition, type FormDesign, OWN_PARTS, type OwnPart, type Part, partKey, type Question } from './design.ts';
import { differenceInWords, differenceKey, elsewhereInWords, withOwnParts } from './editions/index.ts';
import { hasOwn } from './own.ts';
import { type FormText, textsToTranslate, translationOf } from './translating.ts';
import { OWN_REQUESTS } from './updates.ts';
import { expressionInWords, partName, presetInWords, ruleInWords } from './words.ts';

/** One thing that differs between two states of a form: in a sentence, and on either side. */
export interface DesignChange {
  readonly page: 'questions' | 'rules' | 'editions' | 'routing' | 'approval' | 'notices' | 'languages';
  readonly at: string;
  readonly words: Words;
  /** Empty when there was nothing. */
  readonly before: Words;
  /** Empty when nothing is left. */
  readonly after: Words;
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
        words: said('changes:first', { count: asked }),
        before: '',
        after: after.title,
        reaches: 'form',
      },
    ];
  const scopes = { before: requestScope(before.fields), after: requestScope(after.fields) };
  return [
    ...wordingChanges(before, after),
    ...(differs(before.updates, after.updates)
      ? [
          {
            ...{ page: 'questions' as const, at: 'updates', words: said('changes:updates.is') },
            ...{ before: updatesInWords(before), after: updatesInWords(after), reaches: 'form' as const },
          },
        ]
      : []),
    ...fieldChanges(before, after, scopes.before, scopes.after),
    ...partChanges(before, after),
    ...ruleChanges(before, after, scopes.before, scopes.after),
    ...editionChanges(before, after, scopes.before, scopes.after),
    ...tableChanges(before, after, scopes.before, scopes.after),
    ...languageChanges(before, after),
  ];
}

function wordingChanges(before: FormDesign, after: FormDesign): readonly DesignChange[] {
  const lines = [
    ['title', said('changes:title', { before: before.title, after: after.title })],
    ['intro', said('changes:intro')],
    ['topic', said('changes:topic')],
    ['subject', said('changes:subject')],
  ] as const;
  return lines.flatMap(([name, words]) =>
    (before[name] ?? '') === (after[name] ?? '')
      ? []
      : [
          {
            page: 'questions' as const,
            at: name,
            words,
            before: before[name] ?? '',
            after: after[name] ?? '',
            reaches: name === 'subject' ? ('register' as const) : ('form' as const),
          },
        ],
  );
}

/** How many texts are listed where several are said in another language. */
const LISTED = 3;

/** In which other languages it is read, and what is said otherwise in them. */
function languageChanges(before: FormDesign, after: FormDesign): readonly DesignChange[] {
  // What notices say is told where they are compared.
  const all = textsToTranslate(after).filter(({ notice }) => notice === undefined);
  const called = ({ written }: FormDesign): string => (written === undefined ? '' : LANGUAGE_NAMES[written]);
  const [was, is] = [called(before), called(after)];
  const written: DesignChange = {
    ...{ page: 'languages', at: 'written', words: said('changes:language.written'), before: was, after: is },
    reaches: 'form',
  };
  return [...(was === is ? [] : [written]), ...inEachLanguage(before, after, all)];
}

function inEachLanguage(before: FormDesign, after: FormDesign, all: readonly FormText[]): readonly DesignChange[] {
  return LANGUAGES.flatMap((code): readonly DesignChange[] => {
    const language = LANGUAGE_NAMES[code];
    const [was, is] = [before, after].map(({ translations }) => translations?.[code] !== undefined);
    const page = { page: 'languages' as const, at: code };
    const offered: DesignChange = {
      ...{ ...page, words: said(is ? 'changes:language.offered' : 'changes:language.withdrawn', { language }) },
      ...{ before: was ? language : '', after: is ? language : '', reaches: 'form' },
    };
    const texts = all.map((text) => {
      const [old, fresh] = [before, after].map((design) => translationOf(design, text, code).says);
      return { old: old ?? '', fresh: fresh ?? '', isOwn: text.field === null };
    });
    const listed = (says: readonly string[]): string =>
      [...says.filter((each) => each !== '').slice(0, LISTED), ...(says.length > LISTED ? ['…'] : [])].join(' · ');
    const told = ([true, false] as const).flatMap((isOwn): readonly DesignChange[] => {
      const changed = texts.filter((each) => each.isOwn === isOwn && each.old !== each.fresh);
      if (changed.length === 0) return [];
      const count = changed.length;
      return [
        {
          ...page,
          words: said(isOwn ? 'changes:language.texts' : 'changes:language.fields', { language, count }),
          before: listed(changed.map(({ old }) => old)),
          after: listed(changed.map(({ fresh }) => fresh)),
          reaches: isOwn ? 'form' : 'register',
        },
      ];
    });
    return [...(was === is ? [] : [offered]), ...told];
  });
}

/** Whether its answers add or change, in a sentence. */
export function updatesInWords({ updates, fields }: Pick<FormDesign, 'updates' | 'fields'>): Said {
  if (!updates) return said('changes:updates.adds');
  const labelOf = (key: string): string => fields.find((field) => field.key === key)?.label ?? key;
  const { whose, by, none, beside, waits, stamps } = updates;
  const parts: readonly Said[] = [
    whose === OWN_REQUESTS ? said('changes:updates.own') : said('changes:updates.named', { label: labelOf(whose) }),
    ...(by.length > 0 ? [said('changes:updates.by', { labels: by.map(labelOf) })] : []),
    said(none === 'add' ? 'changes:updates.noneAdds' : 'changes:updates.noneRefused'),
    ...(beside ? [said('changes:updates.beside')] : []),
    ...(waits ? [said('changes:updates.waits')] : []),
    ...(stamps === undefined ? [] : [said('changes:updates.stamps', { label: labelOf(stamps) })]),
  ];
  return said('changes:updates.all', { parts });
}

function fieldChanges(before: FormDesign, after: FormDesign, was: Scope, is: Scope): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const add = (
    field: Field,
    words: Words,
    old: Words,
    fresh: Words,
    reaches: DesignChange['reaches'] = 'register',
  ): void => void changes.push({ page: 'questions', at: field.key, words, before: old, after: fresh, reaches });
  const source = (field: Field, { fields }: FormDesign, scope: Scope): Said => {
    if (field.source === 'computed')
      return said('changes:source.computed', { formula: expressionInWords(field.formula, scope) });
    if (field.source !== 'carried') return said(`changes:source.${field.source}`);
    const reference = fields.find(({ key }) => key === field.reference)?.label ?? field.reference;
    return said(field.live ? 'changes:source.live' : 'changes:source.frozen', { reference });
  };
  const preset = (field: Field, design: FormDesign, scope: Scope): Words =>
    isFilled(field) && field.preset ? presetInWords(field, field.preset, design, scope) : '';
  for (const field of after.fields) {
    const old = before.fields.find((each) => each.key === field.key);
    if (!old) {
      add(
        field,
        field.source === 'asked'
          ? said('changes:fieldNew', { label: field.label })
          : said('changes:fieldNewFrom', { label: field.label, source: source(field, after, is) }),
        '',
        field.label,
      );
      continue;
    }
    if (old.label !== field.label)
      add(field, said('changes:renamed', { before: old.label, label: field.label }), old.label, field.label);
    if ((old.called ?? '') !== (field.called ?? ''))
      add(field, said('changes:called', { label: field.label }), old.called ?? '', field.called ?? '');
    if (differs(old.type, field.type))
      add(field, said('changes:type', { label: field.label }), typeInWords(old), typeInWords(field));
    if (differs(source(old, before, was), source(field, after, is)))
      add(
        field,
        said(field.source === 'computed' ? 'changes:formula' : 'changes:origin', { label: field.label }),
        source(old, before, was),
        source(field, after, is),
      );
    if (differs(preset(old, before, was), preset(field, after, is)))
      add(
        field,
        said('changes:preset', { label: field.label }),
        preset(old, before, was),
        preset(field, after, is),
        'form',
      );
  }
  for (const field of before.fields)
    if (!after.fields.some((each) => each.key === field.key))
      add(field, said('changes:fieldGone', { label: field.label }), field.label, '', 'form');
  return changes;
}

const retiredOr = ({ label, retired }: { readonly label: string; readonly retired?: boolean }): Words =>
  retired ? said('changes:retiredOption', { label }) : label;

/** The settings of a kind in words, for reading two of them side by side. */
function typeInWords({ type }: Field): Words {
  switch (type.kind) {
    case 'choice':
    case 'choices':
      return said('values:list', {
        items: [...type.options.map(retiredOr), ...(type.other ? [said('changes:otherAnswer')] : [])],
      });
    case 'level':
      return said('values:list', { items: type.levels.map(retiredOr) });
    case 'line-items': {
      const columns = type.columns.map((column) => column.label);
      return type.most === undefined
        ? said('changes:columns', { columns })
        : said('changes:columnsMost', { columns, most: type.most });
    }
    default: {
      const limits = Object.entries(type).flatMap(([name, value]) =>
        name === 'kind' || value === false ? [] : [limitInWords(name, String(value))],
      );
      return said('values:list', { items: [said(`fieldKinds:${type.kind}`), ...limits] });
    }
  }
}

const LIMITS = ['least', 'most', 'notBefore', 'places', 'unit', 'currency', 'vocabulary', 'under', 'register'] as const;
const MORE_LIMITS = ['prefix', 'digits'] as const;

function limitInWords(name: string, value: string): Said {
  if (name === 'notBeforeToday' || name === 'notBeforeNow') return said(`changes:limit.${name}`);
  const known = [...LIMITS, ...MORE_LIMITS].find((each) => each === name);
  return known ? said(`changes:limit.${known}`, { value }) : said('changes:limit.other', { name, value });
}

const questionName = (part: Question): string => `${part.asks}${part.help ? ` (${part.help})` : ''}`;

function partChanges(before: FormDesign, after: FormDesign): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const add = (at: string, words: Words, old: Words = '', fresh: Words = ''): void =>
    void changes.push({ page: 'questions', at, words, before: old, after: fresh, reaches: 'form' });
  const oldOf = (key: string): Part | undefined => before.parts.find((part) => partKey(part) === key);
  for (const part of after.parts) {
    const key = partKey(part);
    const old = oldOf(key);
    const name = partName(after, key);
    if (!old)
      add(
        key,
        part.part === 'question' ? said('changes:questionNew', { name }) : said(`changes:${part.part}.new`, { name }),
        '',
        name,
      );
    else if (old.part === 'question' && part.part === 'question') {
      if (old.required !== part.required)
        add(
          key,
          said(part.required ? 'changes:becomesRequired' : 'changes:becomesOptional', { name }),
          said(old.required ? 'changes:required' : 'changes:optional'),
          said(part.required ? 'changes:required' : 'changes:optional'),
        );
      if (old.asks !== part.asks || old.help !== part.help)
        add(key, said('changes:wording', { name }), questionName(old), questionName(part));
      if ((old.whenHidden ?? 'ignored') !== (part.whenHidden ?? 'ignored'))
        add(
          key,
          said('changes:hiddenAnswer', { name }),
          said(`changes:hidden.${old.whenHidden ?? 'ignored'}`),
          said(`changes:hidden.${part.whenHidden ?? 'ignored'}`),
        );
    } else if (differs(old, part))
      add(key, said(`changes:${part.part}.changed`, { name }), partName(before, key), name);
  }
  for (const part of before.parts) {
    const key = partKey(part);
    if (after.parts.some((each) => partKey(each) === key)) continue;
    add(
      key,
      part.part === 'question'
        ? said('changes:questionGone', { name: partName(before, key) })
        : said(`changes:${part.part}.gone`, { name: partName(before, key) }),
      partName(before, key),
    );
  }
  const kept = (design: FormDesign, other: FormDesign): string[] =>
    design.parts.map(partKey).filter((key) => other.parts.some((part) => partKey(part) === key));
  const [was, is] = [kept(before, after), kept(after, before)];
  if (differs(was, is))
    add(
      'title',
      said('changes:order'),
      was.map((key) => partName(before, key)).join(', '),
      is.map((key) => partName(after, key)).join(', '),
    );
  return changes;
}

function ruleChanges(before: FormDesign, after: FormDesign, was: Scope, is: Scope): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const add = (at: string, words: Words, old: Words, fresh: Words): void =>
    void changes.push({ page: 'rules', at, words, before: old, after: fresh, reaches: 'form' });
  for (const rule of after.rules) {
    const old = before.rules.find((each) => each.id === rule.id);
    const fresh = ruleInWords(rule, after, is);
    if (!old) add(rule.id, said('changes:ruleNew', { rule: rule.name }), '', fresh);
    else if (differs(old, rule)) {
      const earlier = ruleInWords(old, before, was);
      if (old.on !== rule.on)
        add(rule.id, said(rule.on ? 'changes:ruleOn' : 'changes:ruleOff', { rule: rule.name }), earlier, fresh);
      else if (differs(earlier, fresh)) add(rule.id, said('changes:ruleChanged', { rule: rule.name }), earlier, fresh);
      else
        add(
          rule.id,
          said('changes:ruleRenamed', { rule: old.name }),
          `${old.name} ${old.says}`.trim(),
          `${rule.name} ${rule.says}`.trim(),
        );
    }
  }
  for (const rule of before.rules)
    if (!after.rules.some((each) => each.id === rule.id))
      add(rule.id, said('changes:ruleGone', { rule: rule.name }), ruleInWords(rule, before, was), '');
  const order = (design: FormDesign, other: FormDesign): string[] =>
    design.rules.flatMap((rule) => (other.rules.some((each) => each.id === rule.id) ? [rule.name] : []));
  const ids = (design: FormDesign, other: FormDesign): string[] =>
    design.rules.flatMap((rule) => (other.rules.some((each) => each.id === rule.id) ? [rule.id] : []));
  if (differs(ids(before, after), ids(after, before)))
    add('', said('changes:ruleOrder'), order(before, after).join(', '), order(after, before).join(', '));
  return changes;
}

/** An edition as it differs, in words. */
function differencesInWords(edition: Edition, design: FormDesign, scope: Scope): readonly Words[] {
  const form = withOwnParts(design, edition);
  return edition.differences.map((each) => differenceInWords(each, form, scope));
}

function editionChanges(before: FormDesign, after: FormDesign, was: Scope, is: Scope): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const add = (at: string, words: Words, old: Words, fresh: Words): void =>
    void changes.push({ page: 'editions', at, words, before: old, after: fresh, reaches: 'form' });
  const [olds, news] = [before.editions ?? [], after.editions ?? []];
  const list = (items: readonly Words[]): Words => said('values:list', { items });
  for (const edition of news) {
    const { id, name } = edition;
    const old = olds.find((each) => each.id === id);
    if (!old) {
      add(id, said('changes:editionNew', { edition: name }), '', list(differencesInWords(edition, after, is)));
      continue;
    }
    if (old.name !== name) add(id, said('changes:editionRenamed', { before: old.name, edition: name }), old.name, name);
    if (old.on !== edition.on)
      add(id, said(edition.on ? 'changes:editionOn' : 'changes:editionOff', { edition: name }), '', '');
    const whom = ({ audience, stages, when }: Edition) => ({ audience, stages: stages ?? null, when });
    if (differs(whom(old), whom(edition)))
      add(
        id,
        said('changes:editionWhom', { edition: name }),
        expressionInWords(old.when || 'true', was),
        expressionInWords(edition.when || 'true', is),
      );
    if (differs(old.elsewhere, edition.elsewhere))
      add(
        id,
        said('changes:editionElsewhere', { edition: name }),
        elsewhereInWords(old.elsewhere),
        elsewhereInWords(edition.elsewhere),
      );
    const says = ({ title, intro, readOnly, opens }: Edition) => [
      ...[title ?? null, intro ?? null, readOnly ?? false, opens ?? null],
    ];
    if (differs(says(old), says(edition)))
      add(id, said('changes:editionSays', { edition: name }), old.title ?? '', edition.title ?? '');
    const had = new Map(old.differences.map((each) => [differenceKey(each), each]));
    const has = new Map(edition.differences.map((each) => [differenceKey(each), each]));
    const [oldForm, newForm] = [withOwnParts(before, old), withOwnParts(after, edition)];
    for (const key of new Set([...had.keys(), ...has.keys()])) {
      const [then, now] = [had.get(key), has.get(key)];
      if (!differs(then, now)) continue;
      const how = then ? (now ? 'Changed' : 'Gone') : 'New';
      const sides = [
        then ? differenceInWords(then, oldForm, was) : '',
        now ? differenceInWords(now, newForm, is) : '',
      ] as const;
      add(id, said(`changes:difference${how}`, { edition: name, what: sides[1] || sides[0] }), ...sides);
    }
  }
  for (const { id, name } of olds)
    if (!news.some((each) => each.id === id)) add(id, said('changes:editionGone', { edition: name }), name, '');
  const order = (of: readonly Edition[], other: readonly Edition[]): readonly Edition[] =>
    of.filter((each) => other.some(({ id }) => id === each.id));
  const ids = (of: readonly Edition[]): readonly string[] => of.map(({ id }) => id);
  const [then, now] = [order(olds, news), order(news, olds)];
  if (differs(ids(then), ids(now)))
    add(
      '',
      said('changes:editionOrder'),
      then.map(({ name }) => name).join(', '),
      now.map(({ name }) => name).join(', '),
    );
  return changes;
}

function tableChanges(before: FormDesign, after: FormDesign, was: Scope, is: Scope): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const rows = ({ routing }: FormDesign): Said => {
    const count = said('changes:rows', { count: routing.rows.length });
    const hits = hitsOf(routing);
    return hits === 'first' ? count : said(`changes:rowsTogether.${hits}`, { rows: count });
  };
  const add = (
    page: DesignChange['page'],
    words: Words,
    old: Words,
    fresh: Words,
    reaches: DesignChange['reaches'],
  ): void => void changes.push({ page, at: page, words, before: old, after: fresh, reaches });
  const unique = (design: FormDesign): string =>
    design.unique.map((rule) => rule.fields.map((key) => partName(design, key)).join(' + ')).join('; ');
  if (differs(before.unique, after.unique))
    add('questions', said('changes:unique'), unique(before), unique(after), 'register');
  for (const part of OWN_PARTS) {
    const name = OWN_WORDS[part];
    const page = part === 'routing' || part === 'notices' ? part : 'approval';
    if (hasOwn(before, part) !== hasOwn(after, part))
      add(page, hasOwn(after, part) ? said(`changes:own${name}`) : said(`changes:usual${name}`), '', '', 'form');
    if (!differs(before[part], after[part])) continue;
    if (part === 'notices') {
      changes.push(...noticeChanges(before, after, hasOwn(after, part) ? 'form' : 'register'));
      continue;
    }
    const [old, fresh] =
      part === 'routing'
        ? [rows(before), routingSaid(before, after, rows(after))]
        : part === 'approval'
          ? [stepsOf(before, was), stepsOf(after, is)]
          : [deadlinesSaid(before), deadlinesSaid(after)];
    add(page, CHANGE_WORDS[part], old, fresh, hasOwn(after, part) ? 'form' : 'register');
  }
  return changes;
}

/** A routing table after a change: how many rows it has, and what becomes otherwise in which. */
function routingSaid(before: FormDesign, after: FormDesign, rows: Said): Said {
  const all = rowChanges(before.routing, after.routing);
  if (all.length === 0) return rows;
  const more = all.length - SHOWN_ROWS;
  const parts = [...all.slice(0, SHOWN_ROWS), ...(more > 0 ? [said('changes:moreRows', { count: more })] : [])];
  return said('changes:rowsWith', { rows, parts });
}

/** Rows of which a change is told one by one. */
const SHOWN_ROWS = 8;

const stepsOf = (design: FormDesign, scope: Scope): Said => {
  const { paths } = design.approval;
  const of = ({ steps, again = [] }: ApprovalPath): Said => {
    const all = said('changes:steps', { steps: steps.map((step) => stepSaid(step, scope)) });
    return again.length === 0
      ? all
      : said('changes:asksAgain', { steps: all, fields: again.map((key) => partName(design, key)) });
  };
  const [first] = paths;
  if (first && paths.length === 1) return of(first);
  return said('changes:paths', {
    paths: paths.map((path) => said('changes:path', { path: pathName(path), steps: of(path) })),
  });
};

const deadlinesSaid = (design: FormDesign): Said =>
  said('changes:deadlines', {
    deadlines: design.deadline.deadlines.map((rule) =>
      said('changes:deadlineOf', {
        deadline: deadlineName(rule),
        length: lengthInWords(rule, (key) => partName(design, key)),
        count: rule.rings.length,
      }),
    ),
  });

function stepSaid(step: ApprovalStep, scope: Scope): Said {
  const counted = { label: step.label, needed: step.needed, of: step.seats.length };
  const when = conditionOf(step);
  const asked =
    when === null
      ? said('changes:step', counted)
      : said('changes:stepWhen', { ...counted, condition: expressionInWords(when, scope) });
  const more = [
    ...(step.against === undefined ? [] : [said('changes:stepAgainst', { count: step.against })]),
    ...(step.instead?.length ? [said('changes:stepInstead', { count: step.instead.length })] : []),
    ...(step.limit
      ? [said(`changes:silence.${step.limit.silence}`, { within: { minutes: Math.round(step.limit.within / 60_000) } })]
      : []),
  ];
  return more.length === 0 ? asked : said('changes:stepWith', { step: asked, more });
}

/** Which notices are new, gone or otherwise, each by its name. */
function noticeChanges(
  { notices: before = USUAL_NOTICES }: FormDesign,
  { notices: after = USUAL_NOTICES }: FormDesign,
  reaches: DesignChange['reaches'],
): readonly DesignChange[] {
  const changes: DesignChange[] = [];
  const add = (at: string, words: Words, old: Words, fresh: Words): void =>
    void changes.push({ page: 'notices', at, words, before: old, after: fresh, reaches });
  for (const kind of USUAL_KINDS) {
    const [was, is] = [usualIn(before, kind), usualIn(after, kind)];
    const name = said(`notices:usual.${kind}`);
    if (differs(was, is)) add(kind, said('notices:isChanged', { name }), usualSaid(was), usualSaid(is));
  }
  for (const rule of after.rules) {
    const was = noticeIn(before, rule.key);
    if (!was) add(rule.key, said('notices:isNew', { name: rule.name }), '', rule.subject);
    else if (differs(was, rule)) add(rule.key, said('notices:isChanged', { name: rule.name }), was.text, rule.text);
  }
  for (const { key, name } of before.rules)
    if (!noticeIn(after, key)) add(key, said('notices:isGone', { name }), name, '');
  const order = (of: NoticePlan, other: NoticePlan): readonly string[] =>
    of.rules.flatMap(({ key }) => (noticeIn(other, key) ? [key] : []));
  if (differs(order(before, after), order(after, before))) add('', said('notices:order'), '', '');
  return changes;
}

const waysWord = (ways: readonly NoticeWay[]) => (ways.length > 1 ? 'both' : (ways[0] ?? 'none'));

const usualSaid = (notice: UsualNotice | undefined): Words =>
  notice?.off
    ? said('notices:isOff')
    : notice?.ways && notice.text.trim() === ''
      ? said(`notices:byThese.${waysWord(notice.ways)}`)
      : (notice?.text ?? '');

const OWN_WORDS = {
  routing: 'Routing',
  approval: 'Approval',
  deadline: 'Deadline',
  notices: 'Notices',
} as const satisfies Record<OwnPart, string>;
const CHANGE_WORDS: Readonly<Record<OwnPart, Said>> = {
  routing: said('changes:routing'),
  approval: said('changes:approval'),
  deadline: said('changes:deadline'),
  notices: said('changes:notices'),
};
