import { type Json, type Merged, mergeContents } from '../design/index.ts';
import { type FormDesign, partKey } from './design.ts';
import { partName } from './words.ts';

/** Lists whose items have a key, so that they are merged item by item. */
const KEYED: Readonly<Record<string, (item: Json) => string>> = {
  fields: (item) => String(item.key),
  parts: (item) => partKey(item as never),
  rules: (item) => String(item.id),
  unique: (item) => String(item.id),
  rows: (item) => String(item.id),
  columns: (item) => String(item.id ?? item.key),
  options: (item) => String(item.key),
};

/** What two people made of the same draft of a form, put together. */
export const mergeDesigns = (base: FormDesign, mine: FormDesign, theirs: FormDesign): Merged<FormDesign> =>
  mergeContents(base, mine, theirs, { lists: KEYED, nameOf: (way) => nameOf(way, mine, theirs) });

/** What a place in a design is called. */
function nameOf(way: readonly string[], mine: FormDesign, theirs: FormDesign): string {
  const [list = '', key = '', setting] = way;
  const names: Readonly<Record<string, string>> = {
    title: 'the title',
    intro: 'the introduction',
    subject: 'what requests are called',
    approval: 'the approval path',
    deadline: 'the deadline plan',
    routing: 'the routing table',
  };
  const label = (): string => {
    const design =
      mine.fields.some((field) => field.key === key) || mine.parts.some((part) => partKey(part) === key)
        ? mine
        : theirs;
    return partName(design, key);
  };
  if (list === 'fields' || list === 'parts')
    return `“${label()}”${setting ? ` (${SETTINGS[setting] ?? setting})` : ''}`;
  if (list === 'rules')
    return `the rule “${[...mine.rules, ...theirs.rules].find((rule) => rule.id === key)?.name ?? key}”`;
  return names[list] ?? list;
}

const SETTINGS: Readonly<Record<string, string>> = {
  label: 'its name',
  type: 'its options or limits',
  asks: 'its question',
  help: 'its help',
  required: 'whether it is required',
  preset: 'its default',
  formula: 'its formula',
};
