/**
 * Who is given which edition, read word for word from what is settled. It knows nothing of how core does it, and takes
 * nothing of it.
 */

/** Somebody who opens a form or a request. */
interface Look {
  readonly personId: string;
  readonly groups: readonly string[];
  readonly isRequester: boolean;
  readonly as: readonly string[];
  readonly kind?: string;
  readonly meets?: readonly string[];
  readonly rights?: readonly string[];
  /** The conditions that hold. */
  readonly holding: readonly string[];
}

interface Words {
  readonly on: boolean;
  readonly audience: {
    readonly in: object;
    readonly outOf: readonly string[];
    readonly requester?: 'in' | 'out';
  };
  readonly stages?: readonly string[] | undefined;
  readonly elsewhere?: object | undefined;
  readonly when: string;
}

/** Who may do something with all may do it with what is of their teams; who may with that, with what they handle. */
const WIDER: Readonly<Record<string, readonly string[]>> = {
  'move:own': ['move:own', 'move:team', 'move:all'],
  'move:team': ['move:team', 'move:all'],
};

const isOne = (word: string, look: Look): boolean => {
  const rest = word.slice(1);
  switch (word.charAt(0)) {
    case '@':
      return look.personId === rest;
    case '+':
      return (look.rights ?? []).some((right) => (WIDER[rest] ?? [rest]).includes(right));
    case '?':
      return (look.meets ?? []).includes(rest);
    case '~':
      return rest === 'contact' ? look.kind === 'contact' : look.as.includes(rest);
    default:
      return look.groups.includes(word);
  }
};

/** Who is in words to be out of is out, whatever else they are. Whose request it is, is in or out by that. */
function isMeant({ in: inside, outOf, requester }: Words['audience'], look: Look): boolean {
  for (const word of outOf) if (isOne(word, look)) return false;
  if (look.isRequester && requester !== undefined) return requester === 'in';
  const { everyone, anyOf, allOf } = inside as { everyone?: true; anyOf?: string[]; allOf?: string[] };
  if (everyone) return true;
  if (anyOf) {
    for (const word of anyOf) if (isOne(word, look)) return true;
    return false;
  }
  let all = (allOf ?? []).length > 0;
  for (const word of allOf ?? []) all = all && isOne(word, look);
  return all;
}

export function fits(edition: Words, look: Look, stage: string): boolean {
  if (!edition.on) return false;
  if (!isMeant(edition.audience, look)) return false;
  if (edition.stages && edition.stages.indexOf(stage) === -1) return false;
  // Who has asked is led nowhere else.
  if (edition.elsewhere !== undefined && stage !== '~asking') return false;
  return edition.when === '' || look.holding.indexOf(edition.when) !== -1;
}

/** One ordered list: the first that fits; the form as it is where none does. */
export function given<E extends Words>(editions: readonly E[], look: Look, stage: string): E | null {
  for (const edition of editions) if (fits(edition, look, stage)) return edition;
  return null;
}

/**
 * Where answers lead: the list is gone through in its order. Whatever is given without them ends it; what leads elsewhere and
 * hangs on one of the questions leads there once it holds.
 */
export function led<E extends Words>(
  editions: readonly E[],
  look: Look,
  after: { readonly holding: readonly string[]; readonly byAnswers: readonly string[] },
): E | null {
  for (const edition of editions) {
    if (fits(edition, look, '~asking')) return null;
    if (edition.elsewhere === undefined || !after.byAnswers.includes(edition.when)) continue;
    if (fits(edition, { ...look, holding: after.holding }, '~asking')) return edition;
  }
  return null;
}
