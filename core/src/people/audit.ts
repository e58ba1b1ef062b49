import type { GroundChange } from './groundChange.ts';
import { type Entry, groupsOn } from './groups.ts';
import { wordOf } from './holders.ts';
import type { Right } from './rights.ts';

/** All that says what people may do, at a moment. */
export interface Access {
  /** One of the staff each, by id: whether they could come in. */
  readonly staff: ReadonlyMap<string, boolean>;
  readonly entries: readonly Entry[];
  /** By subject: `*`, the key of a group, or a person’s word. */
  readonly grants: readonly { readonly subject: string; readonly right: Right }[];
}

/** One line of what was set of a person, a group or everyone. */
export interface AuditLine {
  /** Epoch ms. */
  readonly at: number;
  readonly about: 'person' | 'group' | 'everyone';
  readonly key: string;
  readonly change: GroundChange;
}

const isSameEntry = (one: Entry, other: Entry): boolean =>
  one.group === other.group &&
  one.from === other.from &&
  one.until === other.until &&
  JSON.stringify(one.member) === JSON.stringify(other.member);

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
      case 'given': {
        const subject = subjectOf(line);
        grants = grants.filter((grant) => grant.subject !== subject || grant.right !== change.right);
        break;
      }
      case 'taken':
        grants.push({ subject: subjectOf(line), right: change.right });
        break;
      case 'entered':
      case 'left': {
        // It is written down on both sides: what the group says counts.
        if (about !== 'group' || key !== change.group) break;
        const { group, member, from, until } = change;
        const entry: Entry = { group, member, from, until };
        const at = entries.findIndex((each) => isSameEntry(each, entry));
        if (change.kind === 'left') entries.push(entry);
        else if (at >= 0) entries = entries.filter((_, place) => place !== at);
        break;
      }
    }
  }
  return { staff, entries, grants };
}

/** Who has a right on a day, by whichever way: those of the staff who can come in, by id. */
export function holdersIn({ staff, entries, grants }: Access, right: Right, day: string): readonly string[] {
  const given = new Set(grants.filter((grant) => grant.right === right).map(({ subject }) => subject));
  return [...staff].flatMap(([id, comesIn]) => {
    if (!comesIn) return [];
    const holds =
      given.has('*') ||
      given.has(wordOf({ person: id })) ||
      [...groupsOn(entries, id, day)].some((key) => given.has(key));
    return holds ? [id] : [];
  });
}
