/** Somebody who is known here, with all addresses that find them. */
export interface KnownRecord {
  readonly id: string;
  readonly kind: 'staff' | 'contact';
  readonly name: string;
  readonly active: boolean;
  /** In small letters. */
  readonly addresses: readonly string[];
}

/** A name as it is picked from: with the address where others have the same. */
export const calledApart = ({ name, email }: { readonly name: string; readonly email?: string | undefined }): string =>
  email === undefined ? name : `${name} (${email})`;

/** People with their addresses where others among them have the same name, and without them elsewhere. */
export function toldApart<Somebody extends { readonly name: string; readonly email: string }>(
  people: readonly Somebody[],
): readonly (Omit<Somebody, 'email'> & { readonly email?: string })[] {
  const counts = new Map<string, number>();
  for (const { name } of people) counts.set(nameCompared(name), (counts.get(nameCompared(name)) ?? 0) + 1);
  return people.map(({ email, ...person }) => ({
    ...person,
    ...((counts.get(nameCompared(person.name)) ?? 0) > 1 ? { email } : {}),
  })) as never;
}

/** Why nobody but a person can say whom a row means. */
export type Doubt =
  /** Somebody has the name, and another address. */
  | 'other-address'
  /** Somebody has the address, and another name. */
  | 'other-name'
  /** It could be one of several. */
  | 'several'
  /** It is somebody of the other kind: one of the staff among contacts, or a contact among staff. */
  | 'other-kind'
  /** It is somebody who is inactive. */
  | 'inactive';

/** Whom a row means. */
export type Match =
  | { readonly is: 'new' }
  | { readonly is: 'known'; readonly person: string }
  | { readonly is: 'doubtful'; readonly why: Doubt; readonly candidates: readonly string[] }
  | { readonly is: 'wrong'; readonly why: 'no-name' | 'no-address' | 'twice' };

/** Letters that are typed as others by whoever hasn’t them, and that Unicode does not take apart. */
const TYPED_AS: Readonly<Record<string, string>> = { ß: 'ss', ø: 'o', æ: 'ae', œ: 'oe', ł: 'l', đ: 'd' };

/** A text in small letters without accents (Unicode normalisation form KD, without marks): as it is looked for. */
export const plainLetters = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[ßøæœłđ]/g, (letter) => TYPED_AS[letter] ?? letter);

/** A name as it is compared: whatever its letters, accents and spaces. */
export const nameCompared = (name: string): string =>
  plainLetters(name)
    .replace(/[\s.,'’-]+/g, ' ')
    .trim();

/**
 * Prepares to say whom rows of a file mean, by their address, and by their name where no address is known. The
 * rows are asked for in their order: one that has the address of a row before it, or means the same person, is
 * there twice.
 */
export function prepareMatching(
  known: readonly KnownRecord[],
  kind: KnownRecord['kind'],
): (row: { readonly name: string; readonly email: string }) => Match {
  const byAddress = new Map(known.flatMap((each) => each.addresses.map((address) => [address, each] as const)));
  const byName = new Map<string, KnownRecord[]>();
  for (const each of known) {
    const name = nameCompared(each.name);
    const same = byName.get(name);
    if (same) same.push(each);
    else byName.set(name, [each]);
  }
  const had = new Set<string>();
  const taken = new Set<string>();
  const meant = (record: KnownRecord): Match => {
    const doubt = (why: Doubt): Match => ({ is: 'doubtful', why, candidates: [record.id] });
    if (record.kind !== kind) return doubt('other-kind');
    if (taken.has(record.id)) return { is: 'wrong', why: 'twice' };
    if (!record.active) return doubt('inactive');
    taken.add(record.id);
    return { is: 'known', person: record.id };
  };
  return ({ name: written, email }) => {
    const address = email.trim().toLowerCase();
    const name = nameCompared(written);
    if (name === '') return { is: 'wrong', why: 'no-name' };
    if (address !== '' && had.has(address)) return { is: 'wrong', why: 'twice' };
    had.add(address);
    const holder = address === '' ? undefined : byAddress.get(address);
    const namesakes = (byName.get(name) ?? []).filter((each) => each.kind === kind);
    if (holder) {
      if (nameCompared(holder.name) === name) return meant(holder);
      const others = namesakes.filter((each) => each.active);
      return others.length > 0
        ? { is: 'doubtful', why: 'several', candidates: [holder, ...others].map(({ id }) => id) }
        : { is: 'doubtful', why: 'other-name', candidates: [holder.id] };
    }
    const [only, ...more] = namesakes;
    if (!only) return address === '' ? { is: 'wrong', why: 'no-address' } : { is: 'new' };
    if (more.length > 0) return { is: 'doubtful', why: 'several', candidates: namesakes.map(({ id }) => id) };
    // A row without an address means whoever alone has the name.
    return address === '' ? meant(only) : { is: 'doubtful', why: 'other-address', candidates: [only.id] };
  };
}
