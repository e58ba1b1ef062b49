import { createHash } from 'node:crypto';
import { type Finding, type FormDesign, findingsOf, namedBy, type Surroundings } from '@tolvek/core/form';
import { LRUCache } from 'lru-cache';
import { allGroups } from '../people/queries.ts';
import { canonicalJson } from '../platform/canonical.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { inWorker } from '../platform/workers.ts';
import { knownRegisters } from '../register/references.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { doorsOf, type FormRow, formByKey } from './queries.ts';

/** What was found in a draft, with what stands for the content it was found in. */
export interface Found {
  readonly content: string;
  readonly findings: readonly Finding[];
}

/** By content, so that no draft is looked through twice while nothing in or around it changed. */
const kept = new LRUCache<string, readonly Finding[]>({ max: 500 });
/** Looks that are under way: who asks meanwhile waits for the same one. */
const underWay = new Map<string, Promise<readonly Finding[]>>();

/**
 * Signs of conditions, formulas and cells up to which a draft is looked through at once, on this
 * thread.
 */
const LIGHT = 1_500;

/** What findings depend on besides the draft. */
function aroundOf(db: Reader, formId: string, design: FormDesign): Surroundings {
  return {
    groups: new Set(allGroups(db).map((group) => group.key)),
    outside: doorsOf(db, formId).some((door) => door.kind === 'outside'),
    vocabularies: vocabulariesFor(db, design.fields),
    registers: knownRegisters(db, namedBy(design).registers),
  };
}

const digestOf = (value: unknown): string => createHash('sha256').update(canonicalJson(value)).digest('base64url');

const contentOf = (design: string, around: Surroundings): string =>
  digestOf([design, { ...around, groups: [...around.groups].sort() }]);

/** What stands for drafts as they are stored, by form and version: a list of forms reads many at once. */
const drafts = new LRUCache<string, string>({ max: 2_000 });

function digestOfDraft({ id, version, draft }: FormRow): string {
  const key = `${id} ${version}`;
  const known = drafts.get(key) ?? digestOf(draft);
  drafts.set(key, known);
  return known;
}

/** Whether a draft has so little to reason about that a look is over in a moment. */
function isLight({ fields, rules, routing }: FormDesign): boolean {
  const written = [
    ...rules.map((rule) => rule.when),
    ...routing.rows.flatMap((row) => Object.values(row.cells)),
    ...fields.flatMap((field) => (field.source === 'computed' ? [field.formula] : [])),
  ];
  return written.reduce((length, text) => length + text.length, 0) <= LIGHT;
}

/** What stands for a draft and all around it that findings depend on. */
export const draftContent = (db: Reader, formId: string, design: FormDesign): string =>
  contentOf(digestOf(design), aroundOf(db, formId, design));

/**
 * Looks through a draft, or takes what was found before; a heavy one is looked through in a thread.
 */
export async function findingsFor(db: Reader, formId: string, design: FormDesign): Promise<Found> {
  const around = aroundOf(db, formId, design);
  const content = contentOf(digestOf(design), around);
  const known = kept.get(content);
  if (known) return { content, findings: known };
  if (isLight(design)) {
    const findings = findingsOf(design, around);
    kept.set(content, findings);
    return { content, findings };
  }
  let look = underWay.get(content);
  if (!look) {
    look = inWorker('findings', { design, around }).finally(() => underWay.delete(content));
    underWay.set(content, look);
  }
  const findings = await look;
  kept.set(content, findings);
  return { content, findings };
}

/** What is found in the draft of a form as it stands. */
export async function findingsOfForm(db: Reader, key: string): Promise<Found> {
  const form = formByKey(db, key);
  if (!form) throw notFound('This form');
  return findingsFor(db, form.id, form.draft);
}

/**
 * How many findings a draft has, as far as it was looked through; null otherwise, and the look
 * begins. A list of forms waits for none.
 */
export function countOfFindings(db: Reader, form: FormRow): number | null {
  const known = kept.get(contentOf(digestOfDraft(form), aroundOf(db, form.id, form.draft)));
  if (!known) findingsFor(db, form.id, form.draft).catch(() => undefined);
  return known?.length ?? null;
}
