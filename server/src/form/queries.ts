import { FORM, type FormDesign } from '@tolvek/core/form';
import { type PreparedForm, prepareIntake } from '@tolvek/core/intake';
import { and, asc, eq, gt, isNull, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { type DesignRow, type StateRow, statesOf } from '../design/queries.ts';
import { designStates, designs } from '../design/tables.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { registerById } from '../register/queries.ts';
import { forms } from './tables.ts';

/** A form: its design, and the register it fills. */
export interface FormRow {
  readonly id: string;
  readonly key: string;
  readonly registerId: string;
  readonly draft: FormDesign;
  readonly version: number;
  /** The release in force; 0 when there is none yet. */
  readonly release: number;
  /** Epoch ms since when nobody can ask by it; null while it is in use. */
  readonly stoppedAt: number | null;
  /** Epoch ms since when it is gone from the shelf. */
  readonly deletedAt: number | null;
}

/** A frozen state of a form. `releasedAt`: epoch ms. */
export interface ReleaseRow {
  readonly id: string;
  readonly formId: string;
  readonly number: number;
  readonly design: FormDesign;
  readonly note: string;
  readonly releasedBy: string;
  readonly releasedAt: number;
}

const releaseIn = ({ id, designId, number, content, note, by, at }: StateRow<FormDesign>): ReleaseRow => ({
  ...{ id, number, note, formId: designId, design: content, releasedBy: by, releasedAt: at },
});

interface Prepared extends PreparedForm {
  readonly release: ReleaseRow;
}

/**
 * A compiled form takes about this many bytes for each sign of its design (measured on the demo’s
 * forms).
 */
const BYTES_A_SIGN = 12;

/**
 * Releases never change, so each is read and prepared once, as long as there is room: for 200 of
 * them or 64 MB. They hold what a form is, and nothing of what anybody answered.
 */
const kept = new LRUCache<string, Prepared>({
  max: 200,
  maxSize: 64 * 1024 * 1024,
  sizeCalculation: ({ release }) => Math.max(1, JSON.stringify(release.design).length * BYTES_A_SIGN),
});

export function releaseById(db: Reader, id: string): Prepared {
  let found = kept.get(id);
  if (!found) {
    const state = db.select().from(designStates).where(eq(designStates.id, id)).get() as
      | StateRow<FormDesign>
      | undefined;
    if (!state) throw new Error(`No release ${id}.`);
    const release = releaseIn(state);
    found = { release, ...prepareIntake(release.design) };
    kept.set(id, found);
  }
  return found;
}

/** The release whose deadlines a request has: the one it came by, until it is given those of another. */
export const planningOf = (
  db: Reader,
  { releaseId, plannedBy }: { readonly releaseId: string; readonly plannedBy: string | null },
): Prepared => releaseById(db, plannedBy ?? releaseId);

/** The release in force, or undefined when there is none. */
export function currentRelease(db: Reader, form: Pick<FormRow, 'id' | 'release'>): ReleaseRow | undefined {
  const row = releaseNumbered(db).get({ form: form.id, number: form.release });
  return row ? releaseById(db, row.id).release : undefined;
}

const releaseNumbered = prepared((db) =>
  db
    .select({ id: designStates.id })
    .from(designStates)
    .where(and(eq(designStates.designId, sql.placeholder('form')), eq(designStates.number, sql.placeholder('number'))))
    .prepare(),
);

const inForce = prepared((db) =>
  db
    .select({ id: designStates.id })
    .from(designs)
    .innerJoin(designStates, and(eq(designStates.designId, designs.id), eq(designStates.number, designs.number)))
    .where(eq(designs.id, sql.placeholder('form')))
    .prepare(),
);

/** The release in force of a form by its id, without reading its draft. */
export function releaseInForce(db: Reader, formId: string): ReleaseRow | undefined {
  const row = inForce(db).get({ form: formId });
  return row && releaseById(db, row.id).release;
}

const COLUMNS = {
  id: forms.id,
  key: designs.key,
  registerId: forms.registerId,
  draft: designs.draft,
  version: designs.version,
  release: designs.number,
  stoppedAt: forms.stoppedAt,
  deletedAt: forms.deletedAt,
};

const formKeyed = prepared((db) =>
  db
    .select(COLUMNS)
    .from(forms)
    .innerJoin(designs, eq(designs.id, forms.id))
    .where(and(eq(designs.kind, FORM.kind), eq(designs.key, sql.placeholder('key')), isNull(forms.deletedAt)))
    .prepare(),
);
const formWithId = prepared((db) =>
  db
    .select(COLUMNS)
    .from(forms)
    .innerJoin(designs, eq(designs.id, forms.id))
    .where(eq(forms.id, sql.placeholder('id')))
    .prepare(),
);
const formsInto = prepared((db) =>
  db
    .select(COLUMNS)
    .from(forms)
    .innerJoin(designs, eq(designs.id, forms.id))
    .where(eq(forms.registerId, sql.placeholder('register')))
    .orderBy(asc(designs.key))
    .prepare(),
);

export const formByKey = (db: Reader, key: string): FormRow | undefined =>
  formKeyed(db).get({ key }) as FormRow | undefined;

/** The same, for whoever names one. @throws Problem 404 when there is none. */
export function formNamed(db: Reader, key: string): FormRow {
  const form = formByKey(db, key);
  if (!form) throw notFound('form');
  return form;
}

export const formById = (db: Reader, id: string): FormRow | undefined =>
  formWithId(db).get({ id }) as FormRow | undefined;

/** The forms that fill a register, deleted ones too, by their keys: their releases go on protecting. */
export const formsOf = (db: Reader, registerId: string): readonly FormRow[] =>
  formsInto(db).all({ register: registerId }) as unknown as FormRow[];

/** All forms on the shelf, by their keys. */
export const allForms = (db: Reader): readonly FormRow[] =>
  db
    .select(COLUMNS)
    .from(forms)
    .innerJoin(designs, eq(designs.id, forms.id))
    .where(isNull(forms.deletedAt))
    .orderBy(asc(designs.key))
    .all() as unknown as FormRow[];

/** A form as a design. */
export const designOfForm = ({ id, key, draft, version, release }: FormRow): DesignRow<FormDesign> => ({
  ...{ id, key, draft, version, kind: FORM.kind, number: release },
});

/** The releases of a form, the newest first. */
export const releasesOf = (db: Reader, formId: string): readonly ReleaseRow[] =>
  statesOf<FormDesign>(db, { id: formId }).map(releaseIn);

/** The ids of all releases that requests of a register can have come by. */
export const releasesInto = (db: Reader, registerId: string): readonly string[] =>
  db
    .select({ id: designStates.id })
    .from(designStates)
    .innerJoin(forms, eq(forms.id, designStates.designId))
    .where(and(eq(forms.registerId, registerId), gt(designStates.number, 0)))
    .all()
    .map(({ id }) => id);

/** The register that a form’s requests go into. */
export const registerOfForm = (db: Reader, formId: string) =>
  registerById(db, registerIdOf(db).get({ id: formId })?.registerId ?? '');

const registerIdOf = prepared((db) =>
  db
    .select({ registerId: forms.registerId })
    .from(forms)
    .where(eq(forms.id, sql.placeholder('id')))
    .prepare(),
);

/** The forms of a register that are on the shelf. */
export const onShelf = (db: Reader, registerId: string): readonly FormRow[] =>
  formsOf(db, registerId).filter((form) => form.deletedAt === null);
