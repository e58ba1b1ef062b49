import { said, type Words } from '@tolvek/words';
import { isSame } from '../own/index.ts';
import type { Change } from './kind.ts';
import { isPlain, type Json, type MergeRules } from './merge.ts';

type What = 'designs:new' | 'designs:gone' | 'designs:changed' | 'designs:reordered';

/**
 * What differs between two states of a design, setting by setting, for kinds that have no words of
 * their own for it. Items of a list with identities are compared by them.
 */
export function compareContents<Content extends object>(
  before: Content | null,
  after: Content,
  { lists, nameOf }: MergeRules,
): readonly Change[] {
  const changes: Change[] = [];
  const add = (way: readonly string[], what: What, old: unknown, fresh: unknown): void => {
    const name = nameOf(way);
    changes.push({
      page: way[0] ?? '',
      at: way.slice(0, 2).join(' '),
      words: said(what, { name }),
      before: inWords(old),
      after: inWords(fresh),
    });
  };
  // A setting that comes or goes within something that was there and stays makes neither new nor gone.
  const look = (old: unknown, fresh: unknown, way: readonly string[], isWithin = false): void => {
    if (isSame(old, fresh)) return;
    const keyOf = lists[way.at(-1) ?? ''];
    if (keyOf && Array.isArray(old) && Array.isArray(fresh)) items(old as Json[], fresh as Json[], keyOf, way);
    else if (isPlain(old) && isPlain(fresh)) {
      for (const name of new Set([...Object.keys(old), ...Object.keys(fresh)]))
        look(old[name], fresh[name], [...way, name], way.length >= 2);
    } else {
      const appears = old === undefined ? 'designs:new' : 'designs:changed';
      add(way, isWithin ? 'designs:changed' : fresh === undefined ? 'designs:gone' : appears, old, fresh);
    }
  };
  const items = (
    old: readonly Json[],
    fresh: readonly Json[],
    keyOf: (item: Json) => string,
    way: readonly string[],
  ): void => {
    const [was, is] = [old, fresh].map((list) => new Map(list.map((item) => [keyOf(item), item])));
    for (const key of new Set([...(is?.keys() ?? []), ...(was?.keys() ?? [])]))
      look(was?.get(key), is?.get(key), [...way, key]);
    const common = (list: readonly Json[], other: ReadonlyMap<string, Json> | undefined): readonly string[] =>
      list.map(keyOf).filter((key) => other?.has(key));
    if (!isSame(common(old, is), common(fresh, was))) add(way, 'designs:reordered', undefined, undefined);
  };
  if (before) look(before, after, []);
  else add([], 'designs:new', undefined, undefined);
  return changes;
}

/** As far as people can read it: what has a name by its name, lists of words; empty for what is built of more. */
function inWords(value: unknown): Words {
  if (value === undefined || value === null) return '';
  if (typeof value === 'boolean') return value ? said('common:yes') : said('common:no');
  if (Array.isArray(value)) return value.every((each) => typeof each !== 'object') ? value.join(', ') : '';
  if (!isPlain(value)) return String(value);
  const { label, name } = value;
  return typeof label === 'string' ? label : typeof name === 'string' ? name : '';
}
