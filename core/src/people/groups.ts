/**
 * One way into a group: a person, or all of another group, from one day to another (ISO 8601, both
 * included); null where it has no beginning or no end. Groups by key, people by id.
 */
export interface Entry {
  readonly group: string;
  readonly member: { readonly person: string } | { readonly group: string };
  readonly from: string | null;
  readonly until: string | null;
}

/** Whether an entry counts on a day. */
export const holdsOn = ({ from, until }: Pick<Entry, 'from' | 'until'>, day: string): boolean =>
  (from === null || from <= day) && (until === null || day <= until);

/** The groups that hold each member directly on a day: by person (`@id`) and by group. */
function holdersOn(entries: readonly Entry[], day: string): ReadonlyMap<string, readonly string[]> {
  const found = new Map<string, string[]>();
  for (const entry of entries) {
    if (!holdsOn(entry, day)) continue;
    const member = 'group' in entry.member ? entry.member.group : `@${entry.member.person}`;
    const groups = found.get(member);
    if (groups) groups.push(entry.group);
    else found.set(member, [entry.group]);
  }
  return found;
}

/**
 * The groups that somebody is in on a day: those that hold them, and all that hold those. A circle
 * of groups, should there be one, ends where it began.
 */
export const groupsOn = (entries: readonly Entry[], person: string, day: string): ReadonlySet<string> =>
  groupsOnDay(entries, day)(person);

/** `groupsOn` of one person after the other: the entries are read once. */
export function groupsOnDay(entries: readonly Entry[], day: string): (person: string) => ReadonlySet<string> {
  const holders = holdersOn(entries, day);
  return (person) => {
    const found = new Set(holders.get(`@${person}`));
    for (const group of found) for (const outer of holders.get(group) ?? []) found.add(outer);
    return found;
  };
}

/** A way by which somebody is in a group: the group that holds them first, that group last, and since when. */
export interface WayIn {
  readonly groups: readonly string[];
  /** The day on which the last part of the way began to count; null when all of it always did. */
  readonly since: string | null;
  /** The last day on which all of it counts; null when that is not settled. */
  readonly until: string | null;
}

/** Ways that are told at most; a net of groups has very many. */
const MOST_WAYS = 20;

/** Every way by which somebody is in a group on a day, the shortest first. */
export function waysInto(
  entries: readonly Entry[],
  { person, group, day }: { readonly person: string; readonly group: string; readonly day: string },
): readonly WayIn[] {
  const counting = entries.filter((entry) => holdsOn(entry, day));
  const first = counting.filter(({ member }) => 'person' in member && member.person === person);
  let ways: readonly WayIn[] = first.map((entry) => ({
    groups: [entry.group],
    since: entry.from,
    until: entry.until,
  }));
  const found: WayIn[] = [];
  while (ways.length > 0 && found.length < MOST_WAYS) {
    found.push(...ways.filter(({ groups }) => groups.at(-1) === group));
    ways = ways
      .filter(({ groups }) => groups.at(-1) !== group)
      .flatMap((way) =>
        counting
          .filter(
            (entry) =>
              'group' in entry.member && entry.member.group === way.groups.at(-1) && !way.groups.includes(entry.group),
          )
          .map((entry) => ({
            groups: [...way.groups, entry.group],
            since: latest(way.since, entry.from),
            until: earliest(way.until, entry.until),
          })),
      )
      .slice(0, 1_000);
  }
  return found.slice(0, MOST_WAYS);
}

const latest = (one: string | null, other: string | null): string | null =>
  one === null || (other !== null && other > one) ? other : one;

const earliest = (one: string | null, other: string | null): string | null =>
  one === null || (other !== null && other < one) ? other : one;

/**
 * The circle that would come of putting a group into another: from the one over all that it is in,
 * whenever that counts, to the other. Empty when there would be none.
 */
export function circleBy(entries: readonly Entry[], inner: string, outer: string): readonly string[] {
  if (inner === outer) return [inner];
  const cameFrom = new Map<string, string>();
  const around = [outer];
  for (const group of around) {
    for (const entry of entries) {
      if (!('group' in entry.member) || entry.member.group !== group || cameFrom.has(entry.group)) continue;
      cameFrom.set(entry.group, group);
      if (entry.group === inner) {
        const circle = [inner];
        for (let at = inner; at !== outer; at = cameFrom.get(at) ?? outer) circle.push(cameFrom.get(at) ?? outer);
        return circle;
      }
      around.push(entry.group);
    }
  }
  return [];
}
