import type { Page, ShownPart } from '@tolvek/core/form';

/** One page of a form as it is filled in. */
export interface FilledPage {
  readonly page: Page | null;
  readonly parts: readonly ShownPart[];
}

/** What is shown, page by page. A form without pages is one page. */
export function pagesOf(parts: readonly ShownPart[]): readonly FilledPage[] {
  const pages: { page: Page | null; parts: ShownPart[] }[] = [];
  for (const part of parts) {
    if (part.part === 'page') pages.push({ page: part, parts: [] });
    else if (pages.length === 0) pages.push({ page: null, parts: [part] });
    else pages.at(-1)?.parts.push(part);
  }
  return pages.length > 0 ? pages : [{ page: null, parts: [] }];
}

/** On which page a field is asked. */
export const pageOf = (pages: readonly FilledPage[], field: string): number =>
  pages.findIndex(({ parts }) => parts.some((part) => part.part === 'question' && part.field === field));
