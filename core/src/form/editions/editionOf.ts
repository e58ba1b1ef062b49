import { type Field, isFilled } from '../../register/index.ts';
import { keptIn } from '../askedBy.ts';
import {
  type AskedForm,
  type Difference,
  type Edition,
  type FormDesign,
  type FormRule,
  type Part,
  partKey,
} from '../design.ts';
import { placesOf } from '../layout.ts';

/** The name of the rule that keeps what an edition locks. */
const LOCKS: Omit<FormRule, 'then'> = {
  ...{ id: 'edition-locks', name: '', says: '', when: 'true', otherwise: [], on: true, runs: 'filling' },
};

/** Puts a part after another one, or first. Where that one is not there, at the end. */
function placedAfter(parts: readonly Part[], part: Part, after: string | null): readonly Part[] {
  if (after === null) return [part, ...parts];
  const at = parts.findIndex((each) => partKey(each) === after);
  return at < 0 ? [...parts, part] : [...parts.slice(0, at + 1), part, ...parts.slice(at + 1)];
}

function reworded(part: Part, words: Extract<Difference, { does: 'reword' }>): Part {
  const { asks, help, title, text } = words;
  switch (part.part) {
    case 'question':
      return { ...part, ...(asks === undefined ? {} : { asks }), ...(help === undefined ? {} : { help }) };
    case 'instruction':
      return text === undefined ? part : { ...part, text };
    default:
      return { ...part, ...(title === undefined ? {} : { title }), ...(text === undefined ? {} : { text }) };
  }
}

/** The parts with those in place that an edition adds or moves. */
function arranged(parts: readonly Part[], differences: readonly Difference[]): readonly Part[] {
  return differences.reduce((now, difference): readonly Part[] => {
    if (difference.does === 'add') {
      const isThere = now.some((part) => partKey(part) === partKey(difference.adds));
      return isThere ? now : placedAfter(now, difference.adds, difference.after);
    }
    if (difference.does !== 'move' || difference.after === difference.part) return now;
    const moved = now.find((part) => partKey(part) === difference.part);
    const rest = now.filter((part) => part !== moved);
    // What is to come after something that is not there stays where it is.
    const { after } = difference;
    const isPlace = after === null || rest.some((part) => partKey(part) === after);
    return moved && isPlace ? placedAfter(rest, moved, after) : now;
  }, parts);
}

/** The keys of the parts that an edition leaves out: with a heading, all that stands under it. */
function leftOut(parts: readonly Part[], differences: readonly Difference[]): ReadonlySet<string> {
  const hidden = new Set(differences.flatMap((each) => (each.does === 'hide' ? [each.part] : [])));
  const only = differences.find((each) => each.does === 'only');
  const out = (key: string, part: Part, around: readonly (string | null)[]): boolean =>
    [key, ...around].some((each) => each !== null && hidden.has(each)) ||
    (only !== undefined && part.part === 'question' && !only.shows.includes(key));
  return new Set(
    placesOf(parts).flatMap(({ part, key, section, page }) => (out(key, part, [section, page]) ? [key] : [])),
  );
}

/** A field as an edition presets it, and with the options that it offers. */
function fieldIn(field: Field, differences: readonly Difference[]): Field {
  let changed = field;
  for (const difference of differences) {
    if (difference.does === 'preset' && difference.part === field.key && isFilled(changed)) {
      const { preset: _, ...rest } = changed;
      changed = (difference.preset === null ? rest : { ...rest, preset: difference.preset }) as Field;
    }
    if (difference.does === 'offer' && difference.part === field.key) {
      const { type } = changed;
      if (type.kind !== 'choice' && type.kind !== 'choices') continue;
      const options = type.options.map((option) =>
        difference.offers.includes(option.key) ? option : { ...option, retired: true },
      );
      changed = { ...changed, type: { ...type, options } } as Field;
    }
  }
  return changed;
}

/**
 * The form as an edition has it: of the same shape as the form, so that whatever completes, shows or checks a form does
 * it with an edition as well. What the edition does not name is as the form has it.
 */
export function editionOf<Form extends AskedForm & Partial<Pick<FormDesign, 'title' | 'intro'>>>(
  form: Form,
  edition: Edition,
): Form {
  const { differences, title, intro } = edition;
  const all = arranged(form.parts, differences);
  const out = leftOut(all, differences);
  const about = <Does extends Difference['does']>(does: Does) =>
    new Map(
      differences.flatMap((each): [string, Extract<Difference, { does: Does }>][] =>
        each.does === does && 'part' in each ? [[each.part, each as never]] : [],
      ),
    );
  const [words, required, spared, locked] = [about('reword'), about('require'), about('spare'), about('lock')];
  const parts = all.flatMap((part): Part[] => {
    const key = partKey(part);
    if (out.has(key)) return [];
    const rewording = words.get(key);
    const said = rewording ? reworded(part, rewording) : part;
    if (said.part !== 'question') return [said];
    return [{ ...said, required: required.has(key) || (said.required && !spared.has(key)) }];
  });
  const fields = form.fields.map((field) => fieldIn(field, differences));
  return {
    ...form,
    ...(title ? { title } : {}),
    ...(intro === undefined ? {} : { intro }),
    ...{ fields, ...keptIn({ parts, rules: form.rules }, (field) => locked.has(field), LOCKS) },
  };
}
