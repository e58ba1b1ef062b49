import type { Language } from '@tolvek/words';
import { type Say, sayIn, type Translations } from '../design/index.ts';
import { fieldsIn } from '../register/index.ts';
import {
  type Action,
  type AskedForm,
  type Difference,
  type Edition,
  type FormDesign,
  type FormRule,
  type NamedAction,
  type Part,
  partKey,
} from './design.ts';
import { differenceKey } from './editions/index.ts';

function actionSaid(action: NamedAction, at: string, say: Say): NamedAction {
  const label = say(at, action.label, 'button');
  return action.does !== 'take-part'
    ? { ...action, label }
    : { ...action, label, back: say(`${at} back`, action.back, 'button') };
}

function partSaid(part: Part, say: Say): Part {
  const key = partKey(part);
  switch (part.part) {
    case 'question':
      return { ...part, asks: say(`${key} asks`, part.asks, 'question'), help: say(`${key} help`, part.help, 'help') };
    case 'instruction': {
      const { mail, actions } = part;
      const text = say(`${key} text`, part.text, 'words');
      return {
        ...{ ...part, text },
        ...(mail ? { mail: { ...mail, label: say(`${key} mail`, mail.label, 'link') } } : {}),
        ...(actions ? { actions: actions.map((action) => actionSaid(action, `${key} ${action.id}`, say)) } : {}),
      };
    }
    default:
      return {
        ...part,
        title: say(`${key} title`, part.title, 'heading'),
        text: say(`${key} text`, part.text, 'words'),
      };
  }
}

/** What a rule says at the fields it speaks at; where it speaks twice at one, by their order. */
function actionsSaid(actions: readonly Action[], place: string, say: Say): readonly Action[] {
  const spoken = new Map<string, number>();
  return actions.map((action) => {
    if (action.do !== 'warn' && action.do !== 'refuse') return action;
    const name = `${place} ${action.do} ${action.field}`;
    const nth = (spoken.get(name) ?? 0) + 1;
    spoken.set(name, nth);
    const at = nth === 1 ? name : `${name} ${nth}`;
    if (action.do === 'warn') return { ...action, text: say(at, action.text, 'warning') };
    return { ...action, text: say(at, action.text, 'refusal'), fix: say(`${at} fix`, action.fix, 'wayOut') };
  });
}

const ruleSaid = (rule: FormRule, say: Say): FormRule => ({
  ...rule,
  then: actionsSaid(rule.then, `${rule.id} then`, say),
  otherwise: actionsSaid(rule.otherwise, `${rule.id} otherwise`, say),
});

function differenceSaid(difference: Difference, say: Say): Difference {
  if (difference.does === 'add') return { ...difference, adds: partSaid(difference.adds, say) };
  if (difference.does !== 'reword') return difference;
  const { asks, help, title, text } = difference;
  const at = differenceKey(difference);
  return {
    ...difference,
    ...(asks === undefined ? {} : { asks: say(`${at} asks`, asks, 'question') }),
    ...(help === undefined ? {} : { help: say(`${at} help`, help, 'help') }),
    ...(title === undefined ? {} : { title: say(`${at} title`, title, 'heading') }),
    ...(text === undefined ? {} : { text: say(`${at} text`, text, 'words') }),
  };
}

function editionSaid(edition: Edition, outer: Say): Edition {
  const say: Say = (place, text, kind) => outer(`${edition.id} ${place}`, text, kind);
  const { title, intro } = edition;
  return {
    ...edition,
    ...(title === undefined ? {} : { title: say('title', title, 'title') }),
    ...(intro === undefined ? {} : { intro: say('intro', intro, 'intro') }),
    differences: edition.differences.map((difference) => differenceSaid(difference, say)),
  };
}

type Spoken = AskedForm & Partial<Pick<FormDesign, 'title' | 'intro' | 'topic' | 'editions'>>;

/** A form with all the words of its own said: what it is called, its parts, what its rules say, its editions. */
export function formSaid<Form extends Spoken>(form: Form, say: Say): Form {
  const { title, intro, topic, editions } = form;
  return {
    ...form,
    ...(title === undefined ? {} : { title: say('title', title, 'title') }),
    ...(intro === undefined ? {} : { intro: say('intro', intro, 'intro') }),
    ...(topic === undefined ? {} : { topic: say('topic', topic, 'heading') }),
    parts: form.parts.map((part) => partSaid(part, say)),
    rules: form.rules.map((rule) => (rule.on ? ruleSaid(rule, say) : rule)),
    ...(editions === undefined ? {} : { editions: editions.map((edition) => editionSaid(edition, say)) }),
  };
}

const known = new WeakMap<Spoken, Map<Translations, Map<Language, Spoken>>>();
const NONE: Translations = {};

/**
 * A form as it is read in a language: of the same shape, so that whatever completes, shows or checks a form does it with this
 * one as well. The very form where it is not read in that language. `by`: translations that are newer than those it has;
 * each is only read in place of the very text it was made from.
 *
 * @example `inLanguage(form, 'de').title` is `Stellplatz` where its title `Berth` was translated so.
 */
export function inLanguage<Form extends Spoken & Pick<FormDesign, 'translations' | 'written'>>(
  form: Form,
  language: Language,
  by: Translations | undefined = form.translations,
): Form {
  // What it says itself is so already; what its fields are called may be written in the desk’s.
  if (by?.[language] === undefined && form.written !== language) return form;
  let ofForm = known.get(form);
  if (!ofForm) known.set(form, (ofForm = new Map()));
  let ofThese = ofForm.get(by ?? NONE);
  if (!ofThese) ofForm.set(by ?? NONE, (ofThese = new Map()));
  let found = ofThese.get(language);
  if (!found) {
    found = formSaid({ ...form, fields: fieldsIn(form.fields, language) }, sayIn(by, language));
    ofThese.set(language, found);
  }
  return found as Form;
}

/** The language in which a form is read by who wishes one, where it is there in it; null: as it was written. */
export const readIn = (
  { translations, written }: Pick<FormDesign, 'translations' | 'written'>,
  wished: Language | undefined,
): Language | null =>
  wished !== undefined && (translations?.[wished] !== undefined || written === wished) ? wished : null;
