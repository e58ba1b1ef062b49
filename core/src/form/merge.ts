import { type Said, said, type Words } from '@tolvek/words';
import { type Json, type Merged, mergeContents } from '../design/index.ts';
import { type FormDesign, partKey } from './design.ts';
import { differenceKey } from './editions/index.ts';
import { partName } from './words.ts';

/** Lists whose items have a key, so that they are merged item by item. */
const KEYED: Readonly<Record<string, (item: Json) => string>> = {
  fields: (item) => String(item.key),
  parts: (item) => partKey(item as never),
  rules: (item) => String(item.id ?? item.key),
  unique: (item) => String(item.id),
  rows: (item) => String(item.id),
  columns: (item) => String(item.id ?? item.key),
  options: (item) => String(item.key),
  editions: (item) => String(item.id),
  differences: (item) => differenceKey(item as never),
  deadlines: (item) => String(item.key),
  rings: (item) => String(item.key),
  usual: (item) => String(item.kind),
};

/** What two people made of the same draft of a form, put together. */
export const mergeDesigns = (base: FormDesign, mine: FormDesign, theirs: FormDesign): Merged<FormDesign> =>
  mergeContents(base, mine, theirs, { lists: KEYED, nameOf: (way) => nameOf(way, mine, theirs) });

/** What a place in a design is called. */
function nameOf(way: readonly string[], mine: FormDesign, theirs: FormDesign): Words {
  const [list = '', key = '', setting] = way;
  const names: Readonly<Record<string, Said>> = {
    title: said('designs:theTitle'),
    intro: said('designs:theIntro'),
    topic: said('designs:theTopic'),
    subject: said('designs:theSubject'),
    approval: said('designs:theApproval'),
    deadline: said('designs:theDeadline'),
    notices: said('designs:theNotices'),
    routing: said('designs:theRouting'),
    updates: said('designs:theUpdates'),
    translations: said('designs:theTranslations'),
    written: said('designs:theWritten'),
  };
  const label = (): string => {
    const design =
      mine.fields.some((field) => field.key === key) || mine.parts.some((part) => partKey(part) === key)
        ? mine
        : theirs;
    return partName(design, key);
  };
  if (list === 'fields' || list === 'parts')
    return setting
      ? said('designs:settingOf', { name: label(), setting: SETTINGS[setting] ?? setting })
      : said('designs:named', { name: label() });
  if (list === 'rules')
    return said('designs:theRule', {
      name: [...mine.rules, ...theirs.rules].find((rule) => rule.id === key)?.name ?? key,
    });
  if (list === 'editions')
    return said('designs:theEdition', {
      name: [...(mine.editions ?? []), ...(theirs.editions ?? [])].find(({ id }) => id === key)?.name ?? key,
    });
  return names[list] ?? list;
}

const SETTINGS: Readonly<Record<string, Said>> = {
  label: said('designs:itsName'),
  translations: said('designs:theTranslations'),
  type: said('designs:itsOptions'),
  asks: said('designs:itsQuestion'),
  help: said('designs:itsHelp'),
  required: said('designs:itsRequired'),
  preset: said('designs:itsPreset'),
  formula: said('designs:itsFormula'),
};
