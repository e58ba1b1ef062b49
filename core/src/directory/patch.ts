import { said } from '@tolvek/words';
import {
  type Attribute,
  holderOf,
  isRecord,
  type Json,
  named,
  type Resource,
  type ResourceType,
  rootOf,
  type Schema,
  valuesOf,
} from './attributes.ts';
import { readPartFilter } from './filter.ts';
import { type PatchPath, patchPath } from './path.ts';
import { DirectoryRefusal } from './refusal.ts';
import { extensionAt, onePrimary, refuseLacking, valueAt } from './take.ts';

type Op = 'add' | 'remove' | 'replace';

interface Operation {
  readonly op: Op;
  readonly path: string | null;
  readonly value: Json | undefined;
}

export const PATCH_OP = 'urn:ietf:params:scim:api:messages:2.0:PatchOp';

const isOp = (word: string): word is Op => word === 'add' || word === 'remove' || word === 'replace';

/** The operations of a patch as it is sent; how their names are written does not count, as directories differ. */
function operationsOf(sent: unknown): readonly Operation[] {
  const body = sent as Json;
  const schemas = isRecord(body) ? valuesOf(body.schemas) : [];
  const operations = isRecord(body) ? (body.Operations ?? body.operations) : undefined;
  if (!schemas.includes(PATCH_OP) || !Array.isArray(operations) || operations.length === 0)
    throw new DirectoryRefusal(400, 'invalidSyntax', said('scim:notAPatch'));
  return (operations as readonly Json[]).map((each) => {
    const op = isRecord(each) && typeof each.op === 'string' ? each.op.toLowerCase() : '';
    if (!isRecord(each) || !isOp(op) || (each.path !== undefined && typeof each.path !== 'string'))
      throw new DirectoryRefusal(400, 'invalidSyntax', said('scim:notAPatch'));
    if (op !== 'remove' && each.value === undefined)
      throw new DirectoryRefusal(400, 'invalidValue', said('scim:noValue'));
    return { op, path: each.path === undefined || each.path === '' ? null : (each.path as string), value: each.value };
  });
}

/** Something of a resource that is being changed. */
type Open = Record<string, Json>;

const put = (open: Open, name: string, value: Json | undefined): void => {
  if (value === undefined || (Array.isArray(value) && value.length === 0)) delete open[name];
  else open[name] = value;
};

const mutability = (attribute: string): DirectoryRefusal =>
  new DirectoryRefusal(400, 'mutability', said('scim:onlyRead', { attribute }));

const noTarget = (path: string): DirectoryRefusal =>
  new DirectoryRefusal(400, 'noTarget', said('scim:noTarget', { path }));

/** What tells several values apart: what they lead to, or all that is said of them but that they are not the first. */
function identityOf({ subAttributes = [] }: Attribute, value: Json): string {
  if (!isRecord(value)) return JSON.stringify(value);
  if (named(subAttributes, 'value')?.mutability === 'immutable') return JSON.stringify(value.value ?? null);
  const said = Object.entries(value).filter(([name, part]) => name !== 'primary' || part === true);
  return JSON.stringify(said.sort(([one], [other]) => (one < other ? -1 : 1)));
}

/** Values with those that are not among them yet. */
function joined(attribute: Attribute, had: readonly Json[], added: readonly Json[]): readonly Json[] {
  const all = new Map(had.map((value) => [identityOf(attribute, value), value]));
  for (const value of added) {
    const identity = identityOf(attribute, value);
    if (!all.has(identity)) all.set(identity, value);
  }
  return onePrimary([...all.values()], had);
}

/** Adds to an attribute, or replaces what stands there; parts that are not said stay. */
function set(open: Open, attribute: Attribute, op: 'add' | 'replace', sent: Json): void {
  if (attribute.mutability === 'readOnly') throw mutability(attribute.name);
  const value = valueAt(attribute, sent);
  const had = open[attribute.name];
  if (attribute.multiValued)
    put(open, attribute.name, op === 'add' ? joined(attribute, valuesOf(had), valuesOf(value)) : value);
  else if (isRecord(had) && isRecord(value)) put(open, attribute.name, { ...had, ...value });
  else if (value !== undefined) put(open, attribute.name, value);
  else if (attribute.required) throw mutability(attribute.name);
  else if (op === 'replace') put(open, attribute.name, undefined);
}

function remove(open: Open, attribute: Attribute, sent: Json | undefined): void {
  if (attribute.mutability === 'readOnly' || attribute.required) throw mutability(attribute.name);
  if (sent === undefined || sent === null || !attribute.multiValued) {
    put(open, attribute.name, undefined);
    return;
  }
  // Some directories name what goes by its value.
  const gone = new Set(valuesOf(valueAt(attribute, sent)).map((each) => (isRecord(each) ? each.value : each)));
  put(
    open,
    attribute.name,
    valuesOf(open[attribute.name]).filter((each) => !gone.has(isRecord(each) ? (each.value as Json) : each)),
  );
}

/** Changes a part of one value. */
function setPart(value: Json, sub: Attribute, op: Op, sent: Json | undefined): Json | undefined {
  if (!isRecord(value)) return value;
  if (sub.mutability === 'readOnly') throw mutability(sub.name);
  const next = op === 'remove' ? undefined : valueAt(sub, sent ?? null);
  if (sub.mutability === 'immutable' && value[sub.name] !== undefined && next !== value[sub.name])
    throw mutability(sub.name);
  const { [sub.name]: _gone, ...rest } = value;
  const after = next === undefined ? rest : { ...rest, [sub.name]: next };
  return Object.keys(after).length > 0 ? after : undefined;
}

/** Changes one part of what stands at an attribute; of several values, of each. */
function atPart(open: Open, attribute: Attribute, sub: Attribute, { op, value }: Operation): void {
  if (attribute.mutability === 'readOnly') throw mutability(attribute.name);
  const had = valuesOf(open[attribute.name]);
  const begun: readonly Json[] = had.length === 0 && op !== 'remove' ? [{}] : had;
  const after = begun.flatMap((each) => setPart(each, sub, op, value) ?? []);
  if (attribute.multiValued) put(open, attribute.name, onePrimary(after, had));
  else put(open, attribute.name, after[0]);
}

interface Filtered {
  readonly attribute: Attribute;
  readonly sub: Attribute | null;
  readonly filter: string;
  readonly path: string;
}

/** Changes those of several values that a filter matches. */
function atMatching(open: Open, { attribute, sub, filter, path }: Filtered, { op, value }: Operation): void {
  if (attribute.mutability === 'readOnly') throw mutability(attribute.name);
  const { matches, fixed } = readPartFilter(attribute, filter);
  const had = valuesOf(open[attribute.name]);
  const found = had.filter((each) => isRecord(each) && matches(each));
  if (found.length === 0) {
    if (op === 'remove') return;
    // What is added where nothing matches begins with what the filter asks for, if that is said in full.
    if (op === 'replace' || fixed === null) throw noTarget(path);
    const made = sub ? setPart(fixed, sub, op, value) : { ...fixed, ...asParts(attribute, value) };
    put(open, attribute.name, onePrimary([...had, ...(made === undefined ? [] : [made])], had));
    return;
  }
  const changed = (each: Json): readonly Json[] => {
    if (!found.includes(each)) return [each];
    if (sub) return [setPart(each, sub, op, value)].flatMap((after) => after ?? []);
    if (op === 'remove') return [];
    const parts = asParts(attribute, value);
    return [op === 'add' ? { ...(each as Resource), ...parts } : parts];
  };
  put(open, attribute.name, onePrimary(had.flatMap(changed), had));
}

function asParts(attribute: Attribute, value: Json | undefined): Resource {
  const [parts, ...more] = valuesOf(valueAt(attribute, value ?? null));
  if (!isRecord(parts) || more.length > 0)
    throw new DirectoryRefusal(400, 'invalidValue', said('scim:wrongKind', { attribute: attribute.name }));
  return parts;
}

/** Changes an extension as a whole: adds the parts that are said, or takes all away. */
function atExtension(open: Open, extension: Schema, { op, value }: Operation): void {
  const parts =
    op === 'remove' ? undefined : { ...holderOf(open, extension.id), ...extensionAt(extension, value ?? null) };
  put(open, extension.id, parts && Object.keys(parts).length > 0 ? parts : undefined);
}

function at(type: ResourceType, open: Open, path: PatchPath, operation: Operation, text: string): void {
  const { attribute, sub, filter } = path;
  if (path.extension !== null && attribute === null) {
    const extension = type.extensions.find(({ id }) => id === path.extension);
    if (extension) atExtension(open, extension, operation);
    return;
  }
  if (!attribute) return;
  const holder: Open = path.extension === null ? open : { ...holderOf(open, path.extension) };
  if (filter !== null) atMatching(holder, { attribute, sub, filter, path: text }, operation);
  else if (sub) atPart(holder, attribute, sub, operation);
  else if (operation.op === 'remove') remove(holder, attribute, operation.value);
  else set(holder, attribute, operation.op, operation.value ?? null);
  if (path.extension !== null) put(open, path.extension, Object.keys(holder).length > 0 ? holder : undefined);
}

/** What is said without a path says of each attribute by itself; what no schema has is left out. */
function withoutPath(type: ResourceType, open: Open, operation: Operation): void {
  const { op, value } = operation;
  if (op === 'remove') throw noTarget('');
  if (!isRecord(value)) throw new DirectoryRefusal(400, 'invalidValue', said('scim:noValue'));
  for (const [name, each] of Object.entries(value)) {
    const path = knownPath(type, name);
    const isRead = path?.attribute?.mutability === 'readOnly' || path?.sub?.mutability === 'readOnly';
    if (path && !isRead) at(type, open, path, { op, path: name, value: each }, name);
  }
}

function knownPath(type: ResourceType, name: string): PatchPath | null {
  try {
    return patchPath(type, name);
  } catch (error) {
    if (error instanceof DirectoryRefusal) return null;
    throw error;
  }
}

/**
 * A resource after a patch (RFC 7644 §3.5.2): its operations one after the other, all of them or none.
 *
 * @throws DirectoryRefusal 400 `invalidSyntax`, `invalidPath`, `invalidFilter`, `invalidValue`, `noTarget`, `mutability`
 *
 * @example
 * patched(GROUP, group, { schemas: [PATCH_OP], Operations: [{ op: 'remove', path: 'members[value eq "7"]' }] })
 */
export function patched(type: ResourceType, resource: Resource, sent: unknown): Resource {
  const open: Open = { ...resource };
  for (const operation of operationsOf(sent)) {
    if (operation.path === null) withoutPath(type, open, operation);
    else at(type, open, patchPath(type, operation.path), operation, operation.path);
  }
  refuseLacking(type, open);
  return open;
}

/** The attributes of a resource that are set by whoever sends it: without what is only read. */
export const writtenOf = (type: ResourceType, resource: Resource): Resource => {
  const only = new Set(rootOf(type).flatMap(({ name, mutability: how }) => (how === 'readOnly' ? [name] : [])));
  return Object.fromEntries(Object.entries(resource).filter(([name]) => name !== 'schemas' && !only.has(name)));
};
