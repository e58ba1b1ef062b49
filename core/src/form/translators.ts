import type { Language } from '@tolvek/words';
import type { TextKind } from '../design/index.ts';
import type { FormDesign } from './design.ts';
import { type FormText, textsToTranslate, translationOf, withTranslation } from './translating.ts';

/** A text as translators have it: by a name of its own that stays, as it is written, and as it is translated by now. */
export interface TextUnit {
  /** Letters, figures, `.`, `-` and `_`, as XLIFF 2.1 wants names (an NMTOKEN). */
  readonly id: string;
  readonly source: string;
  /** Empty where it is not translated. */
  readonly target: string;
}

/** A text that goes out to translators, with what it is. */
export interface UnitOut extends TextUnit {
  readonly kind: TextKind;
  /** The key of the field that it is of; null for the form’s own. */
  readonly field: string | null;
  /** Which notice it is of: `usual` and its kind, or `rule` and its key. */
  readonly notice?: string | undefined;
}

/** A sign that names may not have, by its number: `field/label` is `field.2f.label`. */
const named = (text: string): string =>
  text.replace(/[^A-Za-z0-9_-]/gu, (sign) => `.${(sign.codePointAt(0) ?? 0).toString(16)}.`);

/** The name of a text: by whose it is and where it stands, with a letter before it. */
const idOf = ({ field, notice, place }: Pick<FormText, 'field' | 'notice' | 'place'>): string =>
  notice !== undefined
    ? `notice-${named(notice)}-${named(place)}`
    : field === null
      ? `form-${named(place)}`
      : `field-${named(field)}-${named(place)}`;

/**
 * All texts of a form that its requesters may read, for translators: with what they are in a language by now, those that
 * were translated from other words as well.
 */
export const textsOut = (design: FormDesign, language: Language): readonly UnitOut[] =>
  textsToTranslate(design).map((text) => ({
    ...{ id: idOf(text), source: text.text, target: translationOf(design, text, language).says },
    ...{ kind: text.kind, field: text.field, ...(text.notice === undefined ? {} : { notice: text.notice }) },
  }));

/** What came of a file that came back from translators. */
export interface TakenBack {
  readonly design: FormDesign;
  /** How many texts are said otherwise than before. */
  readonly taken: number;
  /** Of them those that were translated from other words than are written now: they are read once somebody has looked. */
  readonly outdated: number;
  /** Those that were translated already just so. */
  readonly same: number;
  /** Those that came back empty: what they were said as before stays. */
  readonly empty: number;
  /** The names of those that the form does not have, or not any more. */
  readonly unknown: readonly string[];
}

/** A form with what translators made of its texts. Nothing that came back empty takes a translation away. */
export function textsIn(design: FormDesign, language: Language, units: readonly TextUnit[]): TakenBack {
  const texts = new Map(textsToTranslate(design).map((text) => [idOf(text), text]));
  let now = design;
  const counts = { taken: 0, outdated: 0, same: 0, empty: 0 };
  const unknown: string[] = [];
  for (const { id, source, target } of units) {
    const text = texts.get(id);
    if (!text) unknown.push(id);
    else if (target.trim() === '') counts.empty += 1;
    else {
      const before = translationOf(now, text, language);
      if (before.says === target && before.of === source) counts.same += 1;
      else {
        now = withTranslation(now, { ...text, text: source }, language, target);
        counts.taken += 1;
        if (source !== text.text) counts.outdated += 1;
      }
    }
  }
  return { design: now, ...counts, unknown };
}
