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
