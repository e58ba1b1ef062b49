import { type Said, said } from '@tolvek/words';
import { type Attribute, named, type ResourceType, rootOf } from './attributes.ts';
import { DirectoryRefusal } from './refusal.ts';

/** Where an attribute stands: at the root or in an extension; an extension as a whole has no attribute. */
export interface Place {
  /** The urn under which it stands; null at the root. */
  readonly extension: string | null;
  readonly attribute: Attribute | null;
  readonly sub: Attribute | null;
}

/** A place, and which of several values are meant there. */
export interface PatchPath extends Place {
  /** The filter between brackets; null where all are meant. */
  readonly filter: string | null;
}

const startsWith = (text: string, start: string): boolean => text.toLowerCase().startsWith(start.toLowerCase());

/** The attributes that a path begins with, behind the urn that may stand before it. */
function beginning(
  type: ResourceType,
  path: string,
): { readonly extension: string | null; readonly attributes: readonly Attribute[]; readonly rest: string } {
  const [extension] = type.extensions.filter(({ id }) => startsWith(path, id));
  if (extension)
    return {
      ...{ extension: extension.id, attributes: extension.attributes },
      rest: path.slice(extension.id.length).replace(/^[:.]/, ''),
    };
  const { id } = type.schema;
  const rest = startsWith(path, `${id}:`) ? path.slice(id.length + 1) : path;
  return { extension: null, attributes: rootOf(type), rest };
}

/**
 * Finds an attribute by its path: `userName`, `name.familyName`, or with the urn of its schema before it.
 * Null where no schema has it.
 */
export function placeOf(type: ResourceType, path: string): Place | null {
  const { extension, attributes, rest } = beginning(type, path);
  if (rest === '') return extension === null ? null : { extension, attribute: null, sub: null };
  const [name = '', part, ...more] = rest.split('.');
  const attribute = named(attributes, name);
  if (!attribute || more.length > 0) return null;
  if (part === undefined) return { extension, attribute, sub: null };
  const sub = named(attribute.subAttributes ?? [], part);
  return sub ? { extension, attribute, sub } : null;
}

/** A path with a filter: the attribute, what is between the brackets, and the part behind them. */
const WITH_FILTER = /^([^[\]]+)\[(.*)\](?:\.([\w$-]+))?$/s;

const wrongPath = (path: string): Said => said('scim:noSuchPath', { path });

/**
 * Reads where a patch is to change something (RFC 7644 §3.5.2, `PATH`).
 *
 * @throws DirectoryRefusal 400 `invalidPath`
 */
export function patchPath(type: ResourceType, text: string): PatchPath {
  const path = text.trim();
  const [, before, filter, part] = WITH_FILTER.exec(path) ?? [];
  const place = placeOf(type, before === undefined ? path : part === undefined ? before : `${before}.${part}`);
  const isFitting = place !== null && (filter === undefined || place.attribute?.multiValued === true);
  if (!isFitting) throw new DirectoryRefusal(400, 'invalidPath', wrongPath(text));
  return { ...place, filter: filter ?? null };
}
