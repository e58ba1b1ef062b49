import { type Said, said } from '@tolvek/words';
import {
  type Attribute,
  isRecord,
  type Json,
  named,
  type Resource,
  type ResourceType,
  rootOf,
  type Schema,
  valuesOf,
} from './attributes.ts';
import { DirectoryRefusal } from './refusal.ts';

const wrongValue = (reason: Said): DirectoryRefusal => new DirectoryRefusal(400, 'invalidValue', reason);

/** A truth as it is sent: some directories write it as a word. */
function truth(value: Json): boolean | null {
  if (typeof value === 'boolean') return value;
  const word = typeof value === 'string' ? value.toLowerCase() : '';
  return word === 'true' || word === 'false' ? word === 'true' : null;
}

/** One value as the schema has it; undefined for none. A bare value of an attribute with parts is its `value`. */
function oneValue(attribute: Attribute, value: Json): Json | undefined {
  if (value === null) return undefined;
  const wrong = (): DirectoryRefusal => wrongValue(said('scim:wrongKind', { attribute: attribute.name }));
  if (attribute.type === 'boolean') {
    const read = truth(value);
    if (read === null) throw wrong();
    return read;
  }
  if (attribute.type !== 'complex') {
    if (typeof value !== 'string') throw wrong();
    return value;
  }
  if (isRecord(value)) return partsOf(attribute.subAttributes ?? [], value);
  if (typeof value !== 'string' || !named(attribute.subAttributes ?? [], 'value')) throw wrong();
  return { value };
}

/** The parts that a schema has, by its own names; parts it does not have, and those only read, are left out. */
function partsOf(attributes: readonly Attribute[], value: Resource): Resource | undefined {
  const parts: Record<string, Json> = {};
  for (const [name, each] of Object.entries(value)) {
    const attribute = named(attributes, name);
    if (!attribute || attribute.mutability === 'readOnly') continue;
    const read = valueAt(attribute, each);
    if (read !== undefined) parts[attribute.name] = read;
  }
  return Object.keys(parts).length > 0 ? parts : undefined;
}

/**
 * What is sent for an attribute, as the schema has it; undefined where nothing is left.
 *
 * @throws DirectoryRefusal 400 `invalidValue` for a value of another kind
 */
export function valueAt(attribute: Attribute, value: Json): Json | undefined {
  if (!attribute.multiValued) {
    if (Array.isArray(value)) throw wrongValue(said('scim:wrongKind', { attribute: attribute.name }));
    return oneValue(attribute, value);
  }
  const values = valuesOf(value).flatMap((each) => {
    const read = oneValue(attribute, each);
    return read === undefined ? [] : [read];
  });
  return values.length > 0 ? onePrimary(values, []) : undefined;
}

const isPrimary = (value: Json): boolean => isRecord(value) && value.primary === true;

/** One of several values is the first, at most: the one that was made so last (RFC 7643 §2.4). */
export function onePrimary(values: readonly Json[], before: readonly Json[]): readonly Json[] {
  const firsts = values.filter(isPrimary);
  if (firsts.length < 2) return values;
  const had = new Set(before.filter(isPrimary).map((each) => JSON.stringify(each)));
  const stays = firsts.findLast((each) => !had.has(JSON.stringify(each))) ?? firsts.at(-1);
  return values.map((each) => (isPrimary(each) && each !== stays ? { ...(each as Resource), primary: false } : each));
}

/** The parts of an extension as it is sent. */
export const extensionAt = ({ attributes }: Schema, value: Json): Resource | undefined => {
  if (value === null) return undefined;
  if (!isRecord(value)) throw new DirectoryRefusal(400, 'invalidValue', said('scim:notAResource'));
  return partsOf(attributes, value);
};

/**
 * A resource as it is sent, in the names and kinds of its schema. What no schema has, and what is only read, is left
 * out (RFC 7644 §3.3 and §3.5.1).
 *
 * @throws DirectoryRefusal 400 for what is no resource of the kind, lacks what is required, or has values of other kinds
 */
export function takeResource(type: ResourceType, sent: unknown): Resource {
  if (!isRecord(sent as Json)) throw new DirectoryRefusal(400, 'invalidSyntax', said('scim:notAResource'));
  const { schemas, ...rest } = sent as Resource;
  const { id } = type.schema;
  const names = valuesOf(schemas).map((each) => String(each).toLowerCase());
  if (!names.includes(id.toLowerCase()))
    throw new DirectoryRefusal(400, 'invalidSyntax', said('scim:otherSchema', { schema: id }));
  const taken: Record<string, Json> = { ...partsOf(rootOf(type), rest) };
  for (const extension of type.extensions) {
    const [, value] = Object.entries(rest).find(([name]) => name.toLowerCase() === extension.id.toLowerCase()) ?? [];
    const parts = value === undefined ? undefined : extensionAt(extension, value);
    if (parts) taken[extension.id] = parts;
  }
  refuseLacking(type, taken);
  return taken;
}

/** @throws DirectoryRefusal 400 `invalidValue` where something is required that is not there, or is empty */
export function refuseLacking(type: ResourceType, resource: Resource): void {
  for (const { name, required } of rootOf(type)) {
    const value = resource[name];
    const isThere = value !== undefined && (typeof value !== 'string' || value.trim() !== '');
    if (required && !isThere) throw wrongValue(said('scim:required', { attribute: name }));
  }
}
