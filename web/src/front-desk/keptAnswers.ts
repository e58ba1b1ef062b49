import type { KnownFile, RawAnswers } from '@tolvek/core/register';

/** What was typed at a door, kept on this device until it is sent. */
export interface KeptAnswers {
  readonly answers: RawAnswers;
  /** Files that were sent along already. */
  readonly files: readonly KnownFile[];
  readonly contact: { readonly name: string; readonly email: string };
  /** The key that makes a submit happen once, however often it is sent. */
  readonly key: string;
}

const place = (slug: string): string => `tolvek:typed:${slug}`;

export const newKey = (): string => crypto.randomUUID();

export const nothingTyped = (): KeptAnswers => ({ answers: {}, files: [], contact: { name: '', email: '' }, key: newKey() });

export function recall(slug: string): KeptAnswers {
  try {
    const kept = JSON.parse(localStorage.getItem(place(slug)) ?? 'null') as Partial<KeptAnswers> | null;
    return kept?.answers && kept.contact && kept.key ? ({ ...kept, files: kept.files ?? [] } as KeptAnswers) : nothingTyped();
  } catch {
    return nothingTyped();
  }
}

/** Keeps what was typed; false when the device does not allow it. */
export function keep(slug: string, typed: KeptAnswers): boolean {
  try {
    localStorage.setItem(place(slug), JSON.stringify(typed));
    return true;
  } catch {
    return false;
  }
}

export function forget(slug: string): void {
  try {
    localStorage.removeItem(place(slug));
  } catch {
    // Nothing was kept, so there is nothing to forget.
  }
}
