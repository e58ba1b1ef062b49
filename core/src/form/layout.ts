import { type Field, isFilled } from '../register/index.ts';
import { END, FIRST_PAGE, type Part, partKey } from './design.ts';

/** Where a part stands: what hides it besides a rule about itself. */
export interface Place {
  readonly part: Part;
  readonly key: string;
  /** The key of its section, when it stands in one. */
  readonly section: string | null;
  /** The key of its page; `first` before any page begins. */
  readonly page: string;
}

/** The parts of a form with their sections and pages, in reading order. */
export function placesOf(parts: readonly Part[]): readonly Place[] {
  let [page, section]: [string, string | null] = [FIRST_PAGE, null];
  return parts.map((part) => {
    const key = partKey(part);
    if (part.part === 'page') [page, section] = [key, null];
    if (part.part === 'section') section = null;
    const place: Place = { part, key, section, page };
    if (part.part === 'section') section = key;
    return place;
  });
}

/**
 * The keys of the pages in order, `first` among them when something stands before the first page.
 */
export function pageKeys(parts: readonly Part[]): readonly string[] {
  return [...new Set(placesOf(parts).map((place) => place.page))];
}

/**
 * The pages that a jump leaves out. A jump backwards, or from or to no page of the form, leaves out
 * none.
 */
export function pagesBetween(pages: readonly string[], after: string, to: string): readonly string[] {
  const from = pages.indexOf(after);
  const end = to === END ? pages.length : pages.indexOf(to);
  return from < 0 || end < 0 ? [] : pages.slice(from + 1, end);
}

/** Fields of a register that stand together, and where. */
export interface FieldsTogether {
  /** The title of the form that asks for them, where several do into one register. */
  readonly form: string | null;
  /** The title of their section, or of their page where they stand in none. */
  readonly title: string | null;
  /** Asked there; filled in by staff; or made of others. */
  readonly kind: 'asked' | 'staff' | 'made';
  /** By key, in the order they stand in. */
  readonly fields: readonly string[];
}

/**
 * Fields as they stand together where they are asked for: each in the first form that asks for it, section by section;
 * then those that no form asks for.
 */
export function fieldsTogether(
  forms: readonly { readonly title: string; readonly parts: readonly Part[] }[],
  fields: readonly Field[],
): readonly FieldsTogether[] {
  const left = new Map(fields.map((field) => [field.key, field]));
  const asked = forms.flatMap(({ title: form, parts }) => {
    const titles = new Map(
      parts.flatMap((part) => (part.part === 'section' || part.part === 'page' ? [[partKey(part), part.title]] : [])),
    );
    const groups = new Map<string, string[]>();
    for (const { part, section, page } of placesOf(parts)) {
      if (part.part !== 'question' || !left.delete(part.field)) continue;
      const place = section ?? page;
      groups.set(place, [...(groups.get(place) ?? []), part.field]);
    }
    return [...groups].map(
      ([place, keys]): FieldsTogether => ({
        ...{ form: forms.length > 1 ? form : null, title: titles.get(place) || null, kind: 'asked', fields: keys },
      }),
    );
  });
  const rest = (kind: 'staff' | 'made', isOne: (field: Field) => boolean): readonly FieldsTogether[] => {
    const keys = [...left.values()].filter(isOne).map(({ key }) => key);
    return keys.length > 0 ? [{ form: null, title: null, kind, fields: keys }] : [];
  };
  return [...asked, ...rest('staff', isFilled), ...rest('made', (field) => !isFilled(field))];
}
