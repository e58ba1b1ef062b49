import { type RanRule, REGISTER, type RegisterContent } from '@tolvek/core/form';
import { stageToBegin } from '@tolvek/core/register';
import { and, asc, eq, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { designStates, designs } from '../design/tables.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { registers } from './tables.ts';

/** A register as it is in force. */
export interface RegisterRow extends RegisterContent {
  readonly id: string;
  readonly key: string;
  /** Of its design, for who changes it. */
  readonly version: number;
  readonly nextNumber: number;
  readonly ran: readonly RanRule[];
}

const COLUMNS = {
  id: registers.id,
  key: designs.key,
  version: designs.version,
  nextNumber: registers.nextNumber,
  ran: registers.ran,
  state: designStates.id,
};
type Found = Omit<RegisterRow, keyof RegisterContent> & { readonly state: string };

const inForce = and(eq(designStates.designId, designs.id), eq(designStates.number, designs.number));
const registerWith = (which: 'id' | 'key') =>
  prepared((db) =>
    db
      .select(COLUMNS)
      .from(registers)
      .innerJoin(designs, eq(designs.id, registers.id))
      .innerJoin(designStates, inForce)
      .where(and(eq(designs.kind, REGISTER.kind), eq(designs[which], sql.placeholder(which))))
      .prepare(),
  );
const withId = registerWith('id');
const withKey = registerWith('key');
const every = prepared((db) =>
  db
    .select(COLUMNS)
    .from(registers)
    .innerJoin(designs, eq(designs.id, registers.id))
    .innerJoin(designStates, inForce)
    .orderBy(asc(designs.key))
    .prepare(),
);
const contentIn = prepared((db) =>
  db
    .select({ content: designStates.content })
    .from(designStates)
    .where(eq(designStates.id, sql.placeholder('id')))
    .prepare(),
);

/**
 * States never change: each is read once, as long as there is room. Kept as a whole row, so that one more is a copy of
 * it: many are made for each page.
 */
const rows = new LRUCache<string, RegisterRow>({ max: 500 });

function whole(db: Reader, { state, ran, id, key, version, nextNumber }: Found): RegisterRow {
  let known = rows.get(state);
  if (!known) {
    const content = contentIn(db).get({ id: state })?.content as RegisterContent | undefined;
    if (!content) throw new Error(`No state ${state}.`);
    rows.set(state, (known = { ...content, id, key, version, nextNumber, ran }));
  }
  return { ...known, version, nextNumber, ran };
}

/** What is in force of a register, without what happened to it. */
export function contentOf({ id, key, version, nextNumber, ran, ...content }: RegisterRow): RegisterContent {
  return content;
}

export function registerByKey(db: Reader, key: string): RegisterRow | undefined {
  const found = withKey(db).get({ key });
  return found && whole(db, found);
}

/** The same, for whoever names one. @throws Problem 404 when there is none. */
export function registerNamed(db: Reader, key: string): RegisterRow {
  const register = registerByKey(db, key);
  if (!register) throw notFound('register');
  return register;
}

export function registerById(db: Reader, id: string): RegisterRow {
  const found = withId(db).get({ id });
  if (!found) throw new Error(`No register ${id}.`);
  return whole(db, found);
}

/** All registers as they are in force, by their keys. */
export const allRegisters = (db: Reader): readonly RegisterRow[] =>
  every(db)
    .all()
    .map((found) => whole(db, found));

/** Registers as they are in force when they are asked for. */
export interface Registers {
  readonly byId: (id: string) => RegisterRow;
  readonly byKey: (key: string) => RegisterRow | undefined;
}

export const registersIn = (db: Reader): Registers => ({
  byId: (id) => registerById(db, id),
  byKey: (key) => registerByKey(db, key),
});

/** The same, each read once: for a page, or a run over many requests. `read`: what was read of them before. */
export function registersOnce(db: Reader, read: readonly RegisterRow[] = []): Registers {
  const known = new Map<string, RegisterRow>();
  const keep = (register: RegisterRow): RegisterRow => {
    known.set(`id ${register.id}`, register).set(`key ${register.key}`, register);
    return register;
  };
  read.forEach(keep);
  return {
    byId: (id) => known.get(`id ${id}`) ?? keep(registerById(db, id)),
    byKey: (key) => {
      const register = known.get(`key ${key}`) ?? registerByKey(db, key);
      return register && keep(register);
    },
  };
}

export function stageOf(register: RegisterRow, key: string) {
  const stage = register.stages.find((each) => each.key === key);
  if (!stage) throw new Error(`No stage “${key}” in register “${register.name}”.`);
  return stage;
}

export function stageWithRole(register: RegisterRow, role: 'deciding' | 'refused' | 'done') {
  const stage = register.stages.find((each) => each.role === role);
  if (!stage) throw new Error(`Register “${register.name}” has no stage for “${role}”.`);
  return stage;
}

/**
 * Whether a register holds things other forms point to: they are in use from the start, and nothing
 * is due.
 */
export const holdsThings = ({ holds }: Pick<RegisterRow, 'holds'>): boolean => holds === 'things';

/** The stage at which work begins: the one its row of the routing table `wanted`, else where requests arrive. */
export function firstStage(register: RegisterRow, wanted?: string) {
  // Things have no stage to arrive in: they are in use at once.
  const stage = stageToBegin(register.stages, wanted) ?? register.stages.find((each) => each.role === 'done');
  if (!stage) throw new Error(`Register “${register.name}” has no stage to arrive in.`);
  return stage;
}
