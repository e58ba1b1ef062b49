/** Who is at a request just now: what they have begun to change and not saved. */
export interface AtIt {
  readonly person: string;
  /** The keys of the fields that they change. */
  readonly fields: readonly string[];
}

/** So long after a page was last heard of it is taken for closed, ms: it is heard of more than twice in that time. */
const HEARD = 45_000;

/**
 * Who has begun to change which request. Open pages say so again and again; nothing of it is stored, and what is not said
 * any more is forgotten.
 */
export class AtWork {
  private readonly known = new Map<string, Map<string, AtIt & { readonly until: number }>>();

  /** Says what somebody changes; nothing any more where no field is named. Returns whether that is otherwise than before. */
  say(request: string, { person, fields }: AtIt, now: number): boolean {
    const here = this.known.get(request) ?? new Map<string, AtIt & { readonly until: number }>();
    const before = here.get(person);
    const was = before && before.until > now ? before.fields.join(' ') : '';
    if (fields.length > 0) here.set(person, { person, fields, until: now + HEARD });
    else here.delete(person);
    if (here.size > 0) this.known.set(request, here);
    else this.known.delete(request);
    return was !== fields.join(' ');
  }

  /** Who else changes a request just now. */
  others(request: string, person: string, now: number): readonly AtIt[] {
    const here = this.known.get(request);
    if (!here) return [];
    for (const [id, each] of here) if (each.until <= now) here.delete(id);
    if (here.size === 0) this.known.delete(request);
    return [...here.values()].filter((each) => each.person !== person);
  }
}
