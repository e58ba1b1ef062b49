import { isSame } from '../design/index.ts';
import { type Field, isFilled, type Kind } from '../register/index.ts';
import { type FormDesign, OWN_PARTS, type OwnPart, type Question, questionsOf, type UniqueRule } from './design.ts';
import { mergeDesigns } from './merge.ts';
import { hasOwn } from './own.ts';
import type { RegisterContent } from './registerDesign.ts';

const usualIn = (design: FormDesign): readonly OwnPart[] => OWN_PARTS.filter((part) => !hasOwn(design, part));

const someOf = <Part extends OwnPart>(from: Pick<FormDesign, Part>, parts: readonly Part[]): Partial<FormDesign> =>
  Object.fromEntries(parts.map((part) => [part, from[part]]));

const isAbout = ({ fields }: UniqueRule, keys: ReadonlySet<string>): boolean => fields.every((key) => keys.has(key));

/**
 * A register after the release of a form: exactly what the draft changed of it is in force. Fields
 * that the form does not know stay as they are; so do rules about them. Options are never lost.
 */
export function registerAfter(register: RegisterContent, design: FormDesign): RegisterContent {
  const keys = new Set(design.fields.map((field) => field.key));
  return {
    ...register,
    fields: mergeFields(register.fields, design.fields),
    left: register.left.filter((key) => !keys.has(key)),
    subject: design.subject,
    unique: [...register.unique.filter((rule) => !isAbout(rule, keys)), ...design.unique],
    usual: { ...register.usual, ...someOf(design, usualIn(design)) },
  };
}

/**
 * The register keeps every field it ever had; labels and options follow the newest release, options
 * are never lost.
 */
function mergeFields(old: readonly Field[], added: readonly Field[]): readonly Field[] {
  const merged = old.map((field) => {
    const fresh = added.find((each) => each.key === field.key);
    if (!fresh) return field;
    const now = fresh.type;
    const was = field.type;
    if (!hasOptions(now) || !hasOptions(was) || now.kind !== was.kind) return fresh;
    const dropped = was.options.filter((option) => !now.options.some((each) => each.key === option.key));
    return {
      ...fresh,
      type: { ...now, options: [...now.options, ...dropped.map((option) => ({ ...option, retired: true }))] },
    };
  });
  return [...merged, ...added.filter((field) => !old.some((each) => each.key === field.key))];
}

const hasOptions = (type: Kind): type is Extract<Kind, { kind: 'choice' | 'choices' }> =>
  type.kind === 'choice' || type.kind === 'choices';

/**
 * A draft after its register changed by something else: what changed there stands in it, unless it
 * was changed here as well; new fields are known to it, those it let go of stay away.
 */
export function draftAfter(draft: FormDesign, before: RegisterContent, after: RegisterContent): FormDesign {
  const there = new Set(before.fields.map((field) => field.key));
  const fresh = after.fields.flatMap(({ key }) => (there.has(key) ? [] : [key]));
  const known = new Set([...draft.fields.map((field) => field.key), ...fresh]);
  const seen = (register: RegisterContent): FormDesign => ({
    ...draft,
    fields: register.fields.filter(({ key }) => known.has(key) && !register.left.includes(key)),
    subject: register.subject,
    unique: register.unique.filter((rule) => isAbout(rule, known)),
    ...someOf(register.usual, usualIn(draft)),
  });
  return mergeDesigns(seen(before), draft, seen(after)).content;
}

/** What a form that begins in a register has of it; the rest is its own. */
export const takenFrom = ({ fields, left, subject, unique, usual }: RegisterContent) => ({
  fields: fields.filter(({ key }) => !left.includes(key)),
  subject,
  unique,
  ...usual,
});

/**
 * A new form that asks into a register that is there: it knows all its fields and asks some, in the
 * words in which another form asks them, where one does.
 */
export function formInto(
  register: RegisterContent,
  { title, asks, like }: { readonly title: string; readonly asks: readonly string[]; readonly like: FormDesign | null },
): FormDesign {
  const of = takenFrom(register);
  const isFromOutside = (key: string): boolean => of.fields.some((each) => each.key === key && each.source === 'asked');
  const asked = like ? questionsOf(like.parts) : [];
  const order = [...asked.map((part) => part.field), ...of.fields.map((field) => field.key)];
  const parts = [...new Set(order)]
    .filter((key) => asks.includes(key) && isFromOutside(key))
    .map(
      (field): Question =>
        asked.find((part) => part.field === field) ?? { part: 'question', field, asks: '', help: '', required: false },
    );
  return { title, intro: '', parts, rules: [], ...of };
}

type Release = Pick<FormDesign, 'fields'>;
const known = new WeakMap<readonly Field[], WeakMap<readonly Field[], readonly Field[]>>();

/**
 * The fields of requests whose values are computed by a release: how it computes them, in the words
 * that the register has now. What the register computes by now and that release did not know is not
 * theirs. Asked for the same again, it is the same list.
 */
export function fieldsBy(register: readonly Field[], release: Release): readonly Field[] {
  let of = known.get(register);
  if (!of) known.set(register, (of = new WeakMap()));
  let found = of.get(release.fields);
  if (!found) {
    const by = new Map(release.fields.map((field) => [field.key, field]));
    found = register.flatMap((field): readonly Field[] => {
      const then = by.get(field.key);
      if (then) return [worded(then, field)];
      return field.source === 'computed' || field.source === 'carried' ? [] : [field];
    });
    // Where nothing differs the register’s own list is what other things are remembered by.
    if (found.length === register.length && found.every((field, index) => field === register[index])) found = register;
    of.set(release.fields, found);
  }
  return found;
}

/** A field as a release computes it, in the words it has now. */
function worded(then: Field, now: Field): Field {
  if (isSame(then, now)) return now;
  if (then.type.kind !== now.type.kind) return then;
  const { translations, called } = now;
  const { called: _, ...was } = then;
  const said = {
    ...was,
    label: now.label,
    ...(called === undefined ? {} : { called }),
    type: wordedType(then.type, now.type),
    ...(translations ? { translations } : {}),
  };
  // Who fills it in is a matter of the register; so is what anybody may read of it.
  return isFilled(then) && isFilled(now) ? ({ ...said, source: now.source } as Field) : (said as Field);
}

function wordedType<Type extends Kind>(then: Type, now: Kind): Type {
  if (hasOptions(then) && hasOptions(now)) return { ...then, options: now.options };
  if (then.kind === 'level' && now.kind === 'level') return { ...then, levels: now.levels };
  if (then.kind === 'line-items' && now.kind === 'line-items')
    return {
      ...then,
      columns: then.columns.map((column) => {
        const other = now.columns.find((each) => each.key === column.key);
        return other?.type.kind === column.type.kind
          ? { ...column, label: other.label, type: wordedType(column.type, other.type) }
          : column;
      }),
    };
  return then;
}

/**
 * Fields of a release as a door asks for them: in the words that the register has now, with the
 * options that the release offers.
 */
export const askedInWordsOf = (release: readonly Field[], register: readonly Field[]): readonly Field[] =>
  release.map((field) => {
    const now = register.find((each) => each.key === field.key);
    if (!now) return field;
    const said = worded(field, now);
    if (!hasOptions(said.type) || !hasOptions(field.type)) return { ...said, source: field.source } as Field;
    const words = said.type.options;
    const options = field.type.options.map((option) => {
      const { label = option.label, help, colour } = words.find((each) => each.key === option.key) ?? option;
      return { ...option, label, ...(help === undefined ? {} : { help }), ...(colour === undefined ? {} : { colour }) };
    });
    return { ...said, source: field.source, type: { ...said.type, options } } as Field;
  });
