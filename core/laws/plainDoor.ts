/**
 * Whom a door lets in, read word for word from what is settled. It knows nothing of how core does it, and takes nothing
 * of it.
 */

interface Limit {
  readonly most: number;
  readonly of: string;
}

interface Door {
  readonly open: boolean;
  readonly opensAt: number | null;
  readonly closesAt: number | null;
  readonly finishing?: number | undefined;
  readonly proof: string;
  readonly limits: readonly Limit[];
  readonly onlySent?: true | undefined;
  readonly audience: { readonly in: object; readonly outOf: readonly string[] };
}

interface Comes {
  readonly kind: string;
  readonly active: boolean;
  readonly groups: readonly string[];
  readonly personId: string;
  readonly meets: readonly string[];
  readonly now: number;
  readonly since: number | null;
  readonly shutAt: number | null;
  readonly sent?: true | undefined;
}

/** Whether a word of an audience means who comes. */
function isIt(word: string, { groups, personId, meets, kind }: Comes): boolean {
  if (word === '~contact') return kind === 'contact';
  if (word === `@${personId}`) return true;
  return groups.includes(word) || meets.some((condition) => word === `?${condition}`);
}

/** When it closed, if it has: by its time, or by hand where that is known, whichever came first. */
function closedAt({ open, closesAt }: Door, { now, shutAt }: Comes): number | 'closed' | null {
  const moments: number[] = [];
  if (closesAt !== null && closesAt <= now) moments.push(closesAt);
  if (!open && shutAt !== null) moments.push(shutAt);
  if (!open && shutAt === null) return 'closed';
  return moments.length === 0 ? null : Math.min(...moments);
}

/** `in`, `in until …` for who may finish, or why not. */
export function lets(door: Door, comes: Comes, count: (limit: Limit) => number): string {
  let answer = 'in';
  const closed = closedAt(door, comes);
  const isEarly = door.opensAt !== null && comes.now < door.opensAt;
  if (closed === 'closed') return 'closed';
  if (closed !== null) {
    const until = closed + (door.finishing ?? 0) * 60_000;
    const wasThere = comes.since !== null && comes.since < closed;
    if (isEarly || !wasThere || comes.now >= until) return 'closed';
    answer = `in until ${until}`;
  } else if (isEarly) return 'not-yet';
  if (door.proof === 'sign-in' && comes.kind !== 'staff') return 'sign-in';
  if (!comes.active) return 'inactive';
  // Whom the form was sent to is meant, and not counted.
  if (comes.sent === true) return answer;
  if (door.onlySent === true) return 'not-for-you';
  const isKnown = comes.kind !== 'unknown';
  if (isKnown) {
    for (const word of door.audience.outOf) if (isIt(word, comes)) return 'not-for-you';
    const { everyone, anyOf } = door.audience.in as { everyone?: true; anyOf?: string[] };
    if (!everyone && !(anyOf ?? []).some((word) => isIt(word, comes))) return 'not-for-you';
  }
  for (const limit of door.limits) if ((isKnown || limit.of === 'all') && count(limit) >= limit.most) return 'full';
  return answer;
}
