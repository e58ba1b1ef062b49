import type { Elsewhere } from '../design.ts';

/** A form and the others to which editions of it lead. */
export interface Leading {
  readonly key: string;
  readonly title: string;
  /** The keys of forms that its editions lead to. */
  readonly leads: readonly string[];
}

/** The forms by which editions lead back to where they began, in order; empty where they lead to an end. */
export function roundBy(key: string, leads: readonly string[], forms: readonly Leading[]): readonly string[] {
  const cameFrom = new Map<string, string>();
  const around = [...leads];
  for (const first of leads) cameFrom.set(first, key);
  for (const at of around) {
    if (at === key) continue;
    for (const next of forms.find((form) => form.key === at)?.leads ?? []) {
      if (cameFrom.has(next)) continue;
      cameFrom.set(next, at);
      around.push(next);
    }
  }
  if (!cameFrom.has(key)) return [];
  const way = [key];
  for (let at = cameFrom.get(key); at !== undefined && at !== key && way.length <= forms.length; at = cameFrom.get(at))
    way.unshift(at);
  return [key, ...way];
}

/** The keys of the forms to which editions lead. */
export const formsLedTo = (
  editions: readonly { readonly on: boolean; readonly elsewhere?: Elsewhere | undefined }[],
) => [
  ...new Set(editions.flatMap(({ on, elsewhere }) => (on && elsewhere && 'form' in elsewhere ? [elsewhere.form] : []))),
];
