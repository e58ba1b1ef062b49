import type { Language } from '@tolvek/words';
import { type HowSaid, howSaid, type PlacedText, type Translations, textsIn, translated } from '../design/index.ts';
import { type Field, fieldSaid } from '../register/index.ts';
import { type NoticeRule, USUAL_NOTICES, type UsualNotice } from '../telling/index.ts';
import { type FormDesign, type Part, partKey } from './design.ts';
import { formSaid } from './translated.ts';

/** A text of a form to translate: one of its own, or of a field that its register owns. */
export interface FormText extends PlacedText {
  /** The key of the field; null for the form’s own. */
  readonly field: string | null;
  /** Which notice it is of: `usual` and its kind, or `rule` and its key; not there where it is of none. */
  readonly notice?: string | undefined;
}

/** What is offered no more needs no other words. */
function inUse(field: Field): Field {
  const { type } = field;
  if (type.kind === 'choice' || type.kind === 'choices')
    return { ...field, type: { ...type, options: type.options.filter(({ retired }) => !retired) } } as Field;
  if (type.kind === 'level')
    return { ...field, type: { ...type, levels: type.levels.filter(({ retired }) => !retired) } } as Field;
  return field;
}

/**
 * The texts of a form that its requesters may read, in the order in which they meet them: with each question those of the
 * field it asks for; then those of fields that are filled in without asking, what rules say, the editions, and what notices
 * say. What only the desk fills in is not theirs to read.
 */
export function textsToTranslate(design: FormDesign): readonly FormText[] {
  const left = new Map(
    design.fields.flatMap((field) => (field.source === 'desk-only' ? [] : [[field.key, inUse(field)] as const])),
  );
  const ofField = (key: string): readonly FormText[] => {
    const field = left.get(key);
    left.delete(key);
    return field ? textsIn((say) => fieldSaid(field, say)).map((text) => ({ ...text, field: key })) : [];
  };
  const own = (
    of: Partial<Pick<FormDesign, 'title' | 'intro' | 'topic' | 'rules' | 'editions'>> & { parts?: readonly Part[] },
  ) =>
    textsIn((say) => formSaid({ fields: [], parts: [], rules: [], ...of }, say)).map(
      (text): FormText => ({ ...text, field: null }),
    );
  const { title, intro, topic, parts, rules, editions } = design;
  return [
    ...own({ title, intro, topic }),
    ...parts.flatMap((part) => [
      ...own({ parts: [part] }),
      ...(part.part === 'question' ? ofField(partKey(part)) : []),
    ]),
    ...[...left.keys()].flatMap(ofField),
    ...own({ rules }),
    ...(editions ? own({ editions }) : []),
    ...ofNotices(design),
  ];
}

/** What a form’s notices say in words of their own, as far as they are sent. */
const ofNotices = (design: FormDesign): readonly FormText[] =>
  noticesIn(design).flatMap(([notice, said]) =>
    said.off
      ? []
      : (['subject', 'text'] as const).flatMap((place): readonly FormText[] =>
          said[place].trim() === ''
            ? []
            : [{ field: null, notice, place, text: said[place], kind: place === 'subject' ? 'subject' : 'notice' }],
        ),
  );

/** The notices of a form, each with what it is known by. */
const noticesIn = ({
  notices = USUAL_NOTICES,
}: FormDesign): readonly (readonly [string, UsualNotice | NoticeRule])[] => [
  ...notices.usual.map((each) => [`usual ${each.kind}`, each] as const),
  ...notices.rules.map((each) => [`rule ${each.key}`, each] as const),
];

function about(design: FormDesign, { field, notice }: Pick<FormText, 'field' | 'notice'>): Translations | undefined {
  if (notice !== undefined) return noticesIn(design).find(([id]) => id === notice)?.[1].translations;
  return field === null ? design.translations : design.fields.find(({ key }) => key === field)?.translations;
}

/** What a text of a form is in a language, and how that stands to what is written now. */
export const translationOf = (design: FormDesign, of: FormText, language: Language): HowSaid =>
  howSaid(about(design, of)?.[language]?.[of.place], of.text);

/** A form with one of its texts said in a language; without it where nothing is said. */
export function withTranslation(design: FormDesign, text: FormText, language: Language, says: string): FormDesign {
  const next = translated(about(design, text), language, text, says);
  const { notice } = text;
  if (notice !== undefined) return withNotice(design, notice, next);
  if (text.field === null) return { ...design, translations: next };
  const fields = design.fields.map((field) => (field.key === text.field ? { ...field, translations: next } : field));
  return { ...design, fields };
}

/** A form with one of its notices said in other languages. */
function withNotice(
  { notices = USUAL_NOTICES, ...design }: FormDesign,
  notice: string,
  translations: Translations,
): FormDesign {
  const is = (id: string): boolean => id === notice;
  return {
    ...design,
    notices: {
      usual: notices.usual.map((each) => (is(`usual ${each.kind}`) ? { ...each, translations } : each)),
      rules: notices.rules.map((each) => (is(`rule ${each.key}`) ? { ...each, translations } : each)),
    },
  };
}

/** A form that is read in a language as well, or not any more. What its register’s fields are called stays with them. */
export function spokenAlso(design: FormDesign, language: Language, isSpoken: boolean): FormDesign {
  const { [language]: was, ...others } = design.translations ?? {};
  if (isSpoken) return { ...design, translations: { ...others, [language]: was ?? {} } };
  const { translations: _, ...rest } = design;
  return Object.keys(others).length > 0 ? { ...rest, translations: others } : rest;
}
