import type { Viewer } from './audience.ts';
import type { GroundChange } from './groundChange.ts';
import { type Entry, groupsOnDay } from './groups.ts';
import { wordOf } from './holders.ts';
import type { Right } from './rights.ts';
import { type Grant, grantsAt, type RegisterRights } from './rightsAt.ts';

/** All that says what people may do, at a moment. */
export interface Access {
  /** One of the staff each, by id: whether they could come in. */
  readonly staff: ReadonlyMap<string, boolean>;
  readonly entries: readonly Entry[];
  /** By subject: `*`, the key of a group, or a person’s word. */
  readonly grants: readonly Grant[];
  /** Where registers differ from that. */
  readonly registers: readonly RegisterRights[];
}

/** One line of what was set of a person, a group or everyone. */
export interface AuditLine {
  /** Epoch ms. */
  readonly at: number;
  readonly about: 'person' | 'group' | 'everyone' | 'register';
  readonly key: string;
  readonly change: GroundChange;
}

const isSameEntry = (one: Entry, other: Entry): boolean =>
  one.group === other.group &&
  one.from === other.from &&
  one.until === other.until &&
  JSON.stringify(one.member) === JSON.stringify(other.member);

/** Whether a change is told here: one of who is in a group stands with both sides, and what the group says counts. */
export const isToldHere = ({ about, key, change }: Omit<AuditLine, 'at'>): boolean =>
  (change.kind !== 'entered' && change.kind !== 'left') || (about === 'group' && key === change.group);

/** The word that a grant’s history stands under. */
const subjectOf = ({ about, key }: AuditLine): string => (about === 'person' ? wordOf({ person: key }) : key);

/**
 * What people could do at a moment of the past, from what they may do now and all that was set since then, the
 * newest first: each line is undone.
 */
export function accessAt(now: Access, lines: readonly AuditLine[], moment: number): Access {
  const staff = new Map(now.staff);
  let entries = [...now.entries];
  let grants = [...now.grants];
  const registers = new Map(now.registers.map((each) => [each.register, each]));
  for (const line of lines) {
    if (line.at <= moment) continue;
    const { change, about, key } = line;
    switch (change.kind) {
      case 'added':
        if (about === 'person') staff.delete(key);
        break;
      case 'changed':
        if (about === 'person' && change.field === 'active' && staff.has(key)) staff.set(key, change.before === 'yes');
        break;
      case 'given':
      case 'taken': {
        const grant: Grant = { subject: subjectOf(line), right: change.right };
        const { register } = change;
        if (register !== undefined) {
          registers.set(register, withDifference(registers.get(register) ?? asDesk(register), grant, change.was));
          break;
        }
        grants = grants.filter((each) => !isSameGrant(each, grant));
        if (change.kind === 'taken') grants.push(grant);
        break;
      }
      case 'apart': {
        const { register, on } = change;
        registers.set(register, { ...(registers.get(register) ?? asDesk(register)), apart: !on });
        break;
      }
      case 'put-back': {
        const { register, apart, differences } = change;
        registers.set(register, { register, apart, differences });
        break;
      }
      case 'differing':
        registers.delete(change.register);
        break;
      case 'entered':
      case 'left': {
        if (!isToldHere(line)) break;
        const { group, member, from, until } = change;
        const entry: Entry = { group, member, from, until };
        const at = entries.findIndex((each) => isSameEntry(each, entry));
        if (change.kind === 'left') entries.push(entry);
        else if (at >= 0) entries = entries.filter((_, place) => place !== at);
        break;
      }
    }
  }
  return { staff, entries, grants, registers: [...registers.values()] };
}

const asDesk = (register: string): RegisterRights => ({ register, apart: false, differences: [] });

const isSameGrant = (one: Grant, other: Grant): boolean => one.subject === other.subject && one.right === other.right;

/** A register that says something else of a grant, or nothing. */
function withDifference(of: RegisterRights, grant: Grant, given: boolean | undefined): RegisterRights {
  const others = of.differences.filter((each) => !isSameGrant(each, grant));
  return { ...of, differences: given === undefined ? others : [...others, { ...grant, given }] };
}

/**
 * Who has a right on a day, by whichever way, at the desk or in a register: those of the staff who can come in, by id.
 * It is settled once which groups each is in, whatever number of rights is asked for.
 */
export function holdersIn(
  { staff, entries, grants, registers }: Access,
  day: string,
): (right: Right, register?: string) => readonly string[] {
  const groupsOf = groupsOnDay(entries, day);
  const subjects = [...staff].flatMap(([id, comesIn]) =>
    comesIn ? [{ id, of: ['*', wordOf({ person: id }), ...groupsOf(id)] }] : [],
  );
  return (right, register) => {
    const there = registers.find((each) => each.register === register);
    const counts = there ? grantsAt(grants, there) : grants;
    const given = new Set(counts.filter((grant) => grant.right === right).map(({ subject }) => subject));
    return subjects.flatMap(({ id, of }) => (of.some((subject) => given.has(subject)) ? [id] : []));
  };
}

/** Who somebody of the staff was to the desk on a day: with their groups and rights; null for who could not come in. */
export function viewersIn({ staff, entries, grants, registers }: Access, day: string): (id: string) => Viewer | null {
  const groupsOf = groupsOnDay(entries, day);
  return (id) => {
    if (!staff.get(id)) return null;
    const groups = [...groupsOf(id)];
    const mine = new Set(['*', wordOf({ person: id }), ...groups]);
    const given = (all: readonly Grant[]): readonly Right[] => [
      ...new Set(all.flatMap(({ subject, right }) => (mine.has(subject) ? [right] : []))),
    ];
    const there = registers.map((register) => [register.register, given(grantsAt(grants, register))] as const);
    return { personId: id, kind: 'staff', groups, rights: given(grants), otherwise: Object.fromEntries(there) };
  };
}
