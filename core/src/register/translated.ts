import type { Language } from '@tolvek/words';
import { type Say, sayIn } from '../design/index.ts';
import type { Field, Kind, SingleKind } from './field.ts';
import type { Stage } from './stage.ts';

interface Labelled {
  readonly label: string;
  readonly help?: string;
}

/** An option or a level, said. */
function labelled<Item extends Labelled>(item: Item, name: string, say: Say): Item {
  const label = say(name, item.label, 'option');
  return { ...item, label, ...(item.help === undefined ? {} : { help: say(`${name} help`, item.help, 'help') }) };
}

function kindSaid<Type extends Kind | SingleKind>(type: Type, say: Say): Type {
  switch (type.kind) {
    case 'choice':
    case 'choices':
      return { ...type, options: type.options.map((option) => labelled(option, `option ${option.key}`, say)) };
    case 'level':
      return { ...type, levels: type.levels.map((level) => labelled(level, `level ${level.worth}`, say)) };
    case 'number':
      return type.unit === undefined ? type : { ...type, unit: say('unit', type.unit, 'unit') };
    case 'line-items':
      return {
        ...type,
        columns: type.columns.map((column) => {
          const inside: Say = (place, text, kind) => say(`column ${column.key} ${place}`, text, kind);
          return {
            ...column,
            label: say(`column ${column.key}`, column.label, 'column'),
            type: kindSaid(column.type, inside),
          };
        }),
      };
    default:
      return type;
  }
}

/** A field with all its texts said: its label, options, levels, unit and columns. */
export const fieldSaid = (field: Field, say: Say): Field =>
  ({
    ...field,
    label: say('label', field.label, 'label'),
    ...(field.called === undefined ? {} : { called: say('called', field.called, 'label') }),
    type: kindSaid(field.type, say),
  }) as Field;

const public_ = new WeakMap<readonly Field[], readonly Field[]>();

/**
 * Fields as requesters read them: called as it is said for them, where it is. Asked for the same again, it is the same
 * list; the very list where nothing is said.
 */
export function calledFields(fields: readonly Field[]): readonly Field[] {
  let found = public_.get(fields);
  if (!found) {
    const isSaid = ({ called }: Field): boolean => (called ?? '').trim() !== '';
    found = fields.some(isSaid)
      ? fields.map((field) => (isSaid(field) ? { ...field, label: field.called ?? field.label } : field))
      : fields;
    public_.set(fields, found);
  }
  return found;
}

const known = new WeakMap<readonly Field[], Map<Language, readonly Field[]>>();

/**
 * Fields as they are read in a language, each by its own translations. Asked for the same again, it is the same list; the
 * very list where nothing is translated.
 */
export function fieldsIn(fields: readonly Field[], language: Language): readonly Field[] {
  let of = known.get(fields);
  if (!of) known.set(fields, (of = new Map()));
  let found = of.get(language);
  if (!found) {
    const isSpoken = ({ translations }: Field): boolean => translations?.[language] !== undefined;
    found = fields.some(isSpoken)
      ? fields.map((field) => (isSpoken(field) ? fieldSaid(field, sayIn(field.translations, language)) : field))
      : fields;
    of.set(language, found);
  }
  return found;
}

/** What requesters read of a stage, in a language; null: as it was written. */
export const publicLabelIn = ({ publicLabel, translations }: Stage, language: Language | null): string =>
  language === null ? publicLabel : sayIn(translations, language)('public', publicLabel, 'stage');
