import type { Given, Key, Param } from '@tolvek/words';
import { Fragment, isValidElement, type ReactElement } from 'react';
import { i18n, say } from '../wire/words.ts';

/** What stands in a place of the sentence: a value, or a part of the page. */
type Filled<K extends Key> = { readonly [Name in keyof Given<K>]: Given<K>[Name] | ReactElement };

/** Signs of the private use area (Unicode) around the name of a part: no text of ours has them. */
const PART = /\uE000(\w+)\uE001/;

/**
 * A sentence with parts of the page in its places, as a link or a value set in bold: the language
 * decides where they stand.
 */
export function Rich<K extends Key>({ text, filled }: { text: K; filled: Filled<K> }) {
  const parts: Record<string, ReactElement> = {};
  const given: Record<string, Param> = {};
  for (const [name, value] of Object.entries(filled as Readonly<Record<string, Param | ReactElement>>)) {
    if (isValidElement(value)) {
      parts[name] = value;
      given[name] = `\uE000${name}\uE001`;
    } else given[name] = value as Param;
  }
  const pieces = (say as (key: Key, given: unknown) => string)(text, given).split(PART);
  return (
    <>
      {pieces.map((piece, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a sentence keeps its order.
        <Fragment key={`${i18n.language} ${place}`}>{place % 2 === 1 ? parts[piece] : piece}</Fragment>
      ))}
    </>
  );
}
