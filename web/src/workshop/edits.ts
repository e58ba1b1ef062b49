import {
  type Action,
  type FormDesign,
  type FormRule,
  freshKey,
  type Part,
  partKey,
  type Question,
  withoutTarget,
} from '@tolvek/core/form';
import type { Field, Kind, KindName } from '@tolvek/core/register';
import { say } from '../wire/words.ts';

/** The kinds of answer that a question can have, in the order they are offered. */
export const QUESTION_KINDS = [
  'text',
  'long-text',
  'number',
  'money',
  'yes-no',
  'choice',
  'choices',
  'level',
  'date',
  'date-time',
  'duration',
  'person',
  'people',
  'term',
  'terms',
  'reference',
  'references',
  'line-items',
  'files',
  'email',
  'phone',
  'link',
] as const satisfies readonly KindName[];

export const kindLabel = (kind: KindName): string => say(`kindNames:${kind}`);

/** Kinds whose values a formula can give. */
export const canBeComputed = (kind: KindName): boolean =>
  kind !== 'line-items' && kind !== 'files' && kind !== 'reference' && kind !== 'references';

/** Kinds that a column of line items can have. */
export const COLUMN_KINDS = [
  'text',
  'number',
  'money',
  'choice',
  'yes-no',
  'date',
  'duration',
  'long-text',
  'level',
  'date-time',
  'email',
  'phone',
  'link',
  'term',
] as const;

export function freshType<K extends KindName>(kind: K): Extract<Kind, { kind: K }>;
export function freshType(kind: KindName): Kind {
  switch (kind) {
    case 'number':
      return { kind, places: 0 };
    case 'money':
      return { kind, currency: 'EUR' };
    case 'choice':
    case 'choices':
      return { kind, options: [{ key: 'first', label: say('workshop:fresh.firstOption') }] };
    case 'level':
      return {
        kind,
        levels: [
          { worth: 10, label: say('workshop:fresh.low') },
          { worth: 20, label: say('workshop:fresh.middle') },
          { worth: 30, label: say('workshop:fresh.high') },
        ],
      };
    case 'person':
    case 'people':
      return { kind, from: [] };
    case 'files':
      return { kind, only: 'any' };
    case 'term':
    case 'terms':
      return { kind, vocabulary: '' };
    case 'reference':
    case 'references':
      return { kind, register: '', shows: [], among: 'all' };
    case 'running-number':
      return { kind, prefix: 'N-', digits: 4 };
    case 'line-items':
      return {
        kind,
        columns: [
          { key: 'what', label: say('workshop:fresh.what'), type: { kind: 'text' }, required: true },
          {
            key: 'count',
            label: say('workshop:fresh.howMany'),
            type: { kind: 'number', places: 0, least: 1 },
            required: true,
          },
        ],
      };
    default:
      return { kind };
  }
}

/** An id that nothing has yet, with the hyphen that tells it from a field. */
export function freshId(stem: string, taken: readonly string[]): string {
  for (let n = 1; ; n += 1) if (!taken.includes(`${stem}-${n}`)) return `${stem}-${n}`;
}

const fieldKeys = (design: FormDesign): ReadonlySet<string> => new Set(design.fields.map((field) => field.key));

/** Puts a part after another, or at the end. */
function placed(parts: readonly Part[], part: Part, after: string | null): readonly Part[] {
  const at = after === null ? -1 : parts.findIndex((each) => partKey(each) === after);
  return at < 0 ? [...parts, part] : [...parts.slice(0, at + 1), part, ...parts.slice(at + 1)];
}

/** Adds a question with a field of its own, after a part or at the end of the form. */
export function addQuestion(
  design: FormDesign,
  kind: KindName,
  after: string | null = null,
): { design: FormDesign; key: string } {
  const key = freshKey(stemOf(kind), fieldKeys(design));
  const field: Field = { key, label: freshLabel(kind), type: freshType(kind), source: 'asked' };
  const question: Question = { part: 'question', field: key, asks: '', help: '', required: false };
  return {
    key,
    design: { ...design, fields: [...design.fields, field], parts: placed(design.parts, question, after) },
  };
}

const STEMS = { computed: 'computed field', 'desk-only': 'desk field', given: 'number' } as const;

const stemOf = (kind: KindName): string => `${kind.replace('-', ' ')} field`;

/** Keys that fields have until they are named: by their kind, or by where their values come from. */
const PROVISIONAL = new Set([
  ...QUESTION_KINDS.map((kind) => freshKey(stemOf(kind), new Set())),
  ...Object.values(STEMS).map((stem) => freshKey(stem, new Set())),
]);

const freshLabel = (kind: KindName): string => say('workshop:fresh.kind', { kind: say(`fieldKinds:${kind}`) });

/** Whether a label is still the one a field was added with, in the language that is read. */
const isFresh = (label: string): boolean =>
  QUESTION_KINDS.some((kind) => label === freshLabel(kind)) ||
  [say('workshop:fresh.computed'), say('workshop:fresh.number'), say('workshop:fresh.staffOnly')].includes(label);

/**
 * A field that was just added with a key from the label it has got, once it is named: conditions read
 * `extras` then and not `line_items_field`. Null where nothing is to be done: it holds answers, it has
 * no label of its own yet, or something names it already.
 */
export function keyedByLabel(
  design: FormDesign,
  key: string,
  released: ReadonlySet<string>,
): { design: FormDesign; key: string } | null {
  const field = design.fields.find((each) => each.key === key);
  const isProvisional = PROVISIONAL.has(key.replace(/_\d+$/, '')) && !released.has(key);
  if (!field || !isProvisional || field.label.trim() === '' || isFresh(field.label)) return null;
  const others = design.fields.filter((each) => each.key !== key);
  const rest = {
    ...design,
    fields: others,
    parts: design.parts.filter((part) => partKey(part) !== key),
  };
  if (new RegExp(`\\b${key}\\b`).test(JSON.stringify(rest))) return null;
  const fresh = freshKey(field.label, new Set(others.map((each) => each.key)));
  if (fresh === key) return null;
  return {
    key: fresh,
    design: {
      ...design,
      fields: design.fields.map((each) => (each.key === key ? { ...each, key: fresh } : each)),
      parts: design.parts.map((part) =>
        part.part === 'question' && part.field === key ? { ...part, field: fresh } : part,
      ),
    },
  };
}

/** Adds a section, a page or words. */
export function addPart(
  design: FormDesign,
  kind: 'section' | 'page' | 'instruction',
  after: string | null = null,
): { design: FormDesign; key: string } {
  const id = freshId(kind === 'instruction' ? 'words' : kind, design.parts.map(partKey));
  const part: Part =
    kind === 'instruction'
      ? { part: kind, id, text: '' }
      : {
          part: kind,
          id,
          title: kind === 'page' ? say('workshop:fresh.page') : say('workshop:fresh.section'),
          text: '',
        };
  return { key: id, design: { ...design, parts: placed(design.parts, part, after) } };
}

/** Adds a field that no form asks: filled in by the desk, or computed. */
export function addField(
  design: FormDesign,
  source: 'desk-only' | 'computed' | 'given',
): { design: FormDesign; key: string } {
  const key = freshKey(STEMS[source], fieldKeys(design));
  const field: Field =
    source === 'computed'
      ? { key, label: say('workshop:fresh.computed'), type: { kind: 'number', places: 2 }, source, formula: '0' }
      : source === 'given'
        ? {
            key,
            label: say('workshop:fresh.number'),
            type: { kind: 'running-number', prefix: 'N-{year}-', digits: 4 },
            source,
          }
        : { key, label: say('workshop:fresh.staffOnly'), type: { kind: 'text' }, source };
  return { key, design: { ...design, fields: [...design.fields, field] } };
}

/** Moves a part to a place among the parts. */
export function movePart(design: FormDesign, key: string, to: number): FormDesign {
  const from = design.parts.findIndex((part) => partKey(part) === key);
  if (from < 0 || to < 0 || to >= design.parts.length || from === to) return design;
  const parts = [...design.parts];
  const [moved] = parts.splice(from, 1);
  if (moved) parts.splice(to, 0, moved);
  return { ...design, parts };
}

/** Moves several parts one place up or down together, in their order; at an end they stay. */
export function moveTogether(design: FormDesign, keys: ReadonlySet<string>, way: -1 | 1): FormDesign {
  const places = design.parts.flatMap((part, index) => (keys.has(partKey(part)) ? [index] : []));
  const edge = way < 0 ? places[0] === 0 : places.at(-1) === design.parts.length - 1;
  if (places.length === 0 || edge) return design;
  const parts = [...design.parts];
  for (const at of way < 0 ? places : [...places].reverse()) {
    const [moved] = parts.splice(at, 1);
    if (moved) parts.splice(at + way, 0, moved);
  }
  return { ...design, parts };
}

/**
 * A field with changes; what it is called or holds may change, where its value comes from only as a
 * whole.
 */
/** A form under another heading; under none, it says nothing of it. */
export const withTopic = ({ topic: _, ...design }: FormDesign, topic: string): FormDesign =>
  topic === '' ? design : { ...design, topic };

export const editField = (design: FormDesign, key: string, edit: (field: Field) => Field): FormDesign => ({
  ...design,
  fields: design.fields.map((field) => (field.key === key ? edit(field) : field)),
});

export const editPart = <P extends Part>(
  design: FormDesign,
  key: string,
  edit: Partial<Omit<P, 'part'>>,
): FormDesign => ({
  ...design,
  parts: design.parts.map((part) => (partKey(part) === key ? ({ ...part, ...edit } as Part) : part)),
});

/** Makes several questions required, or not. */
export const requireAll = (design: FormDesign, keys: ReadonlySet<string>, required: boolean): FormDesign => ({
  ...design,
  parts: design.parts.map((part) => (part.part === 'question' && keys.has(part.field) ? { ...part, required } : part)),
});

/**
 * Takes parts off the form. A field that was never released goes with its question; a released one
 * keeps its answers.
 */
export function dropParts(design: FormDesign, keys: ReadonlySet<string>, released: ReadonlySet<string>): FormDesign {
  const without = { ...design, parts: design.parts.filter((part) => !keys.has(partKey(part))) };
  const cleaned = [...keys].reduce(withoutTarget, without);
  return { ...cleaned, fields: design.fields.filter((field) => !keys.has(field.key) || released.has(field.key)) };
}

/** An order with one item a place earlier or later. */
export function moved<T>(items: readonly T[], index: number, way: -1 | 1): readonly T[] {
  const next = [...items];
  const [item] = next.splice(index, 1);
  if (item !== undefined) next.splice(index + way, 0, item);
  return next;
}

/** The same for one that is named; as it was where it is not there, or stands at that end. */
export const movedById = <T extends { readonly id: string }>(
  items: readonly T[],
  id: string,
  way: -1 | 1,
): readonly T[] => movedBy(items, ({ id: each }) => each === id, way);

/** Items with one of them, if it is there, one place earlier or later. */
export function movedBy<T>(items: readonly T[], is: (item: T) => boolean, way: -1 | 1): readonly T[] {
  const at = items.findIndex(is);
  return at < 0 || !items[at + way] ? items : moved(items, at, way);
}

/** A fresh action of a kind, about something that is there. */
export function freshAction(kind: Action['do'], design: FormDesign): Action {
  const first = design.parts.find((part) => part.part === 'question')?.field ?? '';
  const choice = design.fields.find((field) => field.type.kind === 'choice' || field.type.kind === 'choices');
  switch (kind) {
    case 'show':
    case 'hide':
      return { do: kind, parts: [] };
    case 'require':
    case 'lock':
    case 'clear':
      return { do: kind, fields: [] };
    case 'set':
      return { do: kind, field: first, value: 'null' };
    case 'limit':
      return {
        do: kind,
        field: choice?.key ?? first,
        options:
          choice?.type.kind === 'choice' || choice?.type.kind === 'choices'
            ? choice.type.options.filter((option) => !option.retired).map((option) => option.key)
            : [],
      };
    case 'warn':
      return { do: kind, field: 'form', text: '' };
    case 'refuse':
      return { do: kind, field: 'form', text: '', fix: '' };
    case 'jump':
      return { do: kind, after: 'first', to: 'end' };
  }
}

export const editRule = (design: FormDesign, id: string, edit: Partial<FormRule>): FormDesign => ({
  ...design,
  rules: design.rules.map((rule) => (rule.id === id ? { ...rule, ...edit } : rule)),
});

export const moveRule = (design: FormDesign, id: string, way: -1 | 1): FormDesign => ({
  ...design,
  rules: movedById(design.rules, id, way),
});
