import type { KnownFile, KnownRequest, RawAnswers } from '@tolvek/core/register';

/** What was typed at a door, kept on this device until it is sent. */
export interface KeptAnswers {
  readonly answers: RawAnswers;
  /** Files that were sent along already. */
  readonly files: readonly KnownFile[];
  /** What references point to that were chosen. */
  readonly references: readonly KnownRequest[];
  readonly contact: { readonly name: string; readonly email: string };
  /** The key that makes a submit happen once, however often it is sent. */
  readonly key: string;
  /** What proves since when it has been filled in; the version of the text that was agreed to. */
  readonly opened?: string | undefined;
  readonly agreed?: number | undefined;
  /** Of a form that changes what is there: which of theirs is meant, and what of it they take away. */
  readonly entry?: string | undefined;
  readonly cleared?: readonly string[] | undefined;
  /** When the last letter was typed, by this device’s clock; 0 when nothing was. */
  readonly typedAt: number;
}

/** What was kept at the desk: for one of the staff, or behind a link. */
export type KeptElsewhere = Pick<KeptAnswers, 'answers' | 'typedAt' | 'files' | 'references'> &
  Partial<Pick<KeptAnswers, 'contact'>> & { readonly opened: string | null };

const place = (slug: string): string => `tolvek:typed:${slug}`;

/** Under which name it is kept: of the door, or of what was sent to somebody. */
export const keptUnder = (slug: string, owed: string | undefined): string =>
  owed === undefined ? slug : `${slug} ${owed}`;

export const newKey = (): string => crypto.randomUUID();

export const nothingTyped = (): KeptAnswers => ({
  answers: {},
  files: [],
  references: [],
  contact: { name: '', email: '' },
  key: newKey(),
  typedAt: 0,
});

/** What was typed on this device, or what the desk kept from another one when that is newer. */
export function recall(slug: string, elsewhere: KeptElsewhere | null): KeptAnswers {
  const here = onThisDevice(slug);
  return elsewhere && elsewhere.typedAt > here.typedAt
    ? {
        ...{
          ...here,
          ...elsewhere,
          contact: elsewhere.contact ?? here.contact,
          opened: elsewhere.opened ?? here.opened,
        },
        cleared: Object.keys(elsewhere.answers).filter((field) => elsewhere.answers[field] === null),
      }
    : here;
}

/** What shows since when the form of a door has been filled in on this device, where something was typed. */
export const openedHere = (slug: string): string | undefined => onThisDevice(slug).opened;

/** Whether something that was typed at a door is kept on this device. */
export const isKeptHere = (slug: string): boolean => onThisDevice(slug).typedAt > 0;

function onThisDevice(slug: string): KeptAnswers {
  try {
    const kept = JSON.parse(localStorage.getItem(place(slug)) ?? 'null') as Partial<KeptAnswers> | null;
    if (!kept?.answers || !kept.contact || !kept.key) return nothingTyped();
    return {
      ...kept,
      files: kept.files ?? [],
      references: kept.references ?? [],
      typedAt: kept.typedAt ?? 0,
    } as KeptAnswers;
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

/** What was typed at an address that a door had before is kept under the one it has now, unless something was typed there. */
export function movedTo(from: string, to: string, owed: string | undefined): void {
  const [was, is] = [keptUnder(from, owed), keptUnder(to, owed)];
  if (isKeptHere(was) && !isKeptHere(is) && keep(is, onThisDevice(was))) forget(was);
}

export function forget(slug: string): void {
  try {
    localStorage.removeItem(place(slug));
  } catch {
    // Nothing was kept, so there is nothing to forget.
  }
}
