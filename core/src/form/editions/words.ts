import { type Said, said, type Words } from '@tolvek/words';
import type { Scope } from '../../expression/index.ts';
import { wordInWords } from '../../people/index.ts';
import {
  addedParts,
  type Difference,
  type Edition,
  type Elsewhere,
  type FormDesign,
  type NamedAction,
  type Part,
  partKey,
} from '../design.ts';
import { actionsIn } from '../namedActions.ts';
import { beginning, partName, presetInWords } from '../words.ts';
import type { Verdict } from './choose.ts';

type Named = Pick<FormDesign, 'fields' | 'parts'>;

/** What a button beside a request does. */
function buttonInWords(action: NamedAction, form: Named): Said {
  const { label } = action;
  if (action.does === 'take-part') return said('editions:button.takes', { label, field: partName(form, action.field) });
  if (action.does === 'begin') return said('editions:button.begins', { label });
  if (action.asks === '') return said('editions:button.asksDesk', { label });
  return said('editions:button.asks', { label, who: partName(form, action.asks) });
}

/** What is said about a part of its own, by what it is. */
function addedInWords(adds: Part, form: Named): Words {
  if (adds.part === 'question') return said('editions:added.question', { name: partName(form, adds.field) });
  if (adds.part === 'instruction') return said('editions:added.instruction', { text: beginning(adds.text) });
  return said(`editions:added.${adds.part}`, { title: adds.title });
}

function placeInWords(after: string | null, form: Named): Words {
  return after === null ? said('editions:first') : said('editions:after', { name: partName(form, after) });
}

/** One difference of an edition as a sentence. `form`: the form without it, and the parts of its own. */
export function differenceInWords(difference: Difference, form: Named, scope: Scope): Said {
  const name = (key: string): string => partName(form, key);
  switch (difference.does) {
    case 'hide':
    case 'lock':
    case 'require':
    case 'spare':
      return said(`editions:${difference.does}`, { name: name(difference.part) });
    case 'only':
      return said('editions:only', { names: difference.shows.map(name) });
    case 'reword': {
      const { asks, help, title, text, part } = difference;
      const given = { name: name(part) };
      if (asks !== undefined) return said('editions:asks', { ...given, asks });
      if (help !== undefined) return said('editions:help', { ...given, help: beginning(help) });
      if (title !== undefined) return said('editions:title', { ...given, title });
      return said('editions:text', { ...given, text: beginning(text ?? '') });
    }
    case 'offer': {
      const type = form.fields.find(({ key }) => key === difference.part)?.type;
      const options = type?.kind === 'choice' || type?.kind === 'choices' ? type.options : [];
      const labels = difference.offers.map((key) => options.find((option) => option.key === key)?.label ?? key);
      return said('editions:offer', { name: name(difference.part), options: labels });
    }
    case 'preset': {
      const field = form.fields.find(({ key }) => key === difference.part);
      if (!field || difference.preset === null) return said('editions:presetNone', { name: name(difference.part) });
      const preset = presetInWords(field, difference.preset, form, scope);
      return said('editions:preset', { name: name(difference.part), preset });
    }
    case 'move':
      return said('editions:move', { name: name(difference.part), place: placeInWords(difference.after, form) });
    case 'add': {
      const { adds, after } = difference;
      const words = said('editions:add', { what: addedInWords(adds, form), place: placeInWords(after, form) });
      const buttons = actionsIn(adds.part === 'instruction' ? [adds] : []).map((action) => buttonInWords(action, form));
      return buttons.length > 0 ? said('editions:addWithButtons', { words, buttons }) : words;
    }
  }
}

/** The form with the parts of an edition’s own besides, for what they are called. */
export const withOwnParts = <Form extends Named>(form: Form, { differences }: Pick<Edition, 'differences'>): Form => ({
  ...form,
  parts: [
    ...form.parts,
    ...addedParts(differences).filter((adds) => !form.parts.some((part) => partKey(part) === partKey(adds))),
  ],
});

/** What came of trying an edition, as the rest of a sentence: `is in Contractors`. `nameOf`: what words of audiences are called. */
export function verdictInWords(verdict: Verdict, nameOf: (word: string) => Words): Said {
  const named = (word: string): Words => wordInWords(word) ?? nameOf(word);
  switch (verdict.is) {
    case 'off':
    case 'stage':
    case 'condition':
    case 'answers':
      return said(`editions:verdict.${verdict.is}`);
    case 'out':
      return said('editions:verdict.out', { who: named(verdict.by) });
    case 'not-in':
      return verdict.missing.length > 0
        ? said('editions:verdict.notIn', { who: verdict.missing.map(named) })
        : said('editions:verdict.nobody');
    case 'fits':
      return verdict.by === null
        ? said('editions:verdict.everyone')
        : said('editions:verdict.fits', { who: named(verdict.by) });
  }
}

/** Where an edition leads, in short: the key of a form, or an address; empty for nowhere. */
export const elsewhereInWords = (elsewhere: Elsewhere | undefined): string => {
  if (!elsewhere) return '';
  return 'form' in elsewhere ? elsewhere.form : elsewhere.address;
};
