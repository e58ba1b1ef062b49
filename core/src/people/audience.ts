import { type Language, type Said, said, type Words } from '@tolvek/words';
import { includesRight, isRight, type Right, rightInWords } from './rights.ts';

/** Who somebody is to the desk. Groups are named by their keys. */
export interface Viewer {
  readonly personId: string;
  readonly kind: 'staff' | 'contact';
  /** What they may do, by whichever way it came to them. */
  readonly rights: readonly Right[];
  /** What they may do in registers where that is otherwise, by the registers’ ids. */
  readonly otherwise?: Readonly<Record<string, readonly Right[]>>;
  readonly groups: readonly string[];
  /** The holders of seats whose place they take today, as words: people who are away, and groups that all are away from. */
  readonly standsIn?: readonly string[];
  /** The conditions on profiles that hold of them, of those that access plans name. */
  readonly meets?: readonly string[];
  /** The language that what is written for them is read in, where it is there in it. */
  readonly reads?: Language | undefined;
}

/**
 * Who: everyone, or words to be in, and words to be out of. A word is the key of a group, a person (`@` and their id), a
 * relation to the request in question (`~handler`), whoever is known from outside (`~contact`), a condition on the
 * profile (`?` and FEEL over `me`), or whoever has a right (`+move:all`) or one that includes it. Out wins over in; an audience with nothing to be in is nobody.
 * `requester` speaks of whose request it is: they count as in, or as out.
 */
export interface Audience {
  readonly in:
    | { readonly everyone: true }
    | { readonly anyOf: readonly string[] }
    | { readonly allOf: readonly string[] };
  readonly outOf: readonly string[];
  readonly requester?: 'in' | 'out';
}

/** Somebody, as far as audiences tell people apart: in which groups they are, and who they are where that is known. */
export interface Somebody {
  readonly personId?: string;
  readonly groups: readonly string[];
  readonly kind?: Viewer['kind'] | 'unknown';
  /** The conditions on profiles that hold of them. */
  readonly meets?: readonly string[];
  /** What they may do where the audience is asked; nothing where nobody looked. */
  readonly rights?: readonly Right[];
}

/** How somebody stands to the request in question. */
export interface Stands {
  readonly isRequester: boolean;
  /** What else they are to it: its handler, of its team, its decider. */
  readonly as?: readonly string[];
}

/** Somebody of whom nothing is known. */
export const STRANGER: Viewer = { personId: '', kind: 'contact', rights: [], groups: [] };

/** Whoever is known from outside, as a word of an audience. */
export const CONTACT = '~contact';

/** Where no request is in question. */
export const NO_REQUEST: Stands = { isRequester: false };

/** Whether somebody is what a word of an audience says. */
function isWord(word: string, { personId, groups, kind, meets, rights }: Somebody, { as }: Stands): boolean {
  if (word.startsWith('@')) return personId !== undefined && word.slice(1) === personId;
  if (word.startsWith('?')) return meets?.includes(word.slice(1)) ?? false;
  if (word.startsWith('+')) return rights?.some((right) => includesRight(right, word.slice(1))) ?? false;
  if (word === CONTACT) return kind !== undefined && kind !== 'staff';
  return word.startsWith('~') ? (as?.includes(word.slice(1)) ?? false) : groups.includes(word);
}

/** Whether a viewer belongs to an audience, as they stand to the request in question. */
export function belongs(audience: Audience, who: Somebody, stands: Stands): boolean {
  const is = (word: string): boolean => isWord(word, who, stands);
  if (audience.outOf.some(is)) return false;
  if (stands.isRequester && audience.requester) return audience.requester === 'in';
  const { in: inside } = audience;
  if ('everyone' in inside) return true;
  if ('anyOf' in inside) return inside.anyOf.some(is);
  return inside.allOf.length > 0 && inside.allOf.every(is);
}

/** In the place of a word of an audience: whose request it is. */
export const REQUESTER = '~requester';

/** Why somebody belongs to an audience or not, by the words that decide. */
export type Belonging =
  /** By none where everyone does. */
  | { readonly is: 'in'; readonly by: string | null }
  | { readonly is: 'out'; readonly by: string }
  /** Words that they are not: of any it would take one, of all these are missing. */
  | { readonly is: 'not-in'; readonly missing: readonly string[] };

const IN: Belonging = { is: 'in', by: null };
const BY_REQUEST: Belonging = { is: 'in', by: REQUESTER };
const LEFT_OUT: Belonging = { is: 'out', by: REQUESTER };

/** What of an audience somebody is, but for those it leaves out. */
function whyInside({ in: inside }: Audience, who: Somebody, stands: Stands): Belonging {
  if ('everyone' in inside) return IN;
  if ('anyOf' in inside) {
    for (const word of inside.anyOf) if (isWord(word, who, stands)) return { is: 'in', by: word };
    return { is: 'not-in', missing: inside.anyOf };
  }
  const missing = inside.allOf.filter((word) => !isWord(word, who, stands));
  return missing.length > 0 || inside.allOf.length === 0
    ? { is: 'not-in', missing }
    : { is: 'in', by: inside.allOf[0] ?? null };
}

/**
 * The same as `belongs`, with the reason. Out wins; but who would not be in anyway is told that, and not by what they
 * are left out besides.
 */
export function whyBelongs(audience: Audience, who: Somebody, stands: Stands): Belonging {
  const { outOf, requester } = audience;
  const isAsking = stands.isRequester && requester !== undefined;
  const inside = isAsking && requester === 'in' ? BY_REQUEST : whyInside(audience, who, stands);
  if (inside.is !== 'in') return inside;
  for (const word of outOf) if (isWord(word, who, stands)) return { is: 'out', by: word };
  return isAsking && requester === 'out' ? LEFT_OUT : inside;
}

/** What somebody is to a request or to the desk, as audiences speak of it. */
export const RELATION_WORDS = {
  '~handler': said('people:itsHandler'),
  '~team': said('people:itsTeam'),
  '~decider': said('people:itsDecider'),
  '~entered': said('people:whoEntered'),
  '~behalf': said('people:onWhoseBehalf'),
  '~follower': said('people:whoFollows'),
  [CONTACT]: said('people:contacts'),
} as const satisfies Readonly<Record<string, Said>>;

/** What a word of an audience says that is the same at every desk; null for one that is called something here. */
export function wordInWords(word: string): Said | null {
  if (word === REQUESTER) return said('people:requester');
  if (word in RELATION_WORDS) return RELATION_WORDS[word as keyof typeof RELATION_WORDS];
  const right = word.startsWith('+') ? word.slice(1) : '';
  return isRight(right) ? said('people:whoMay', { what: rightInWords(right) }) : null;
}

/** An audience as a sentence: “everyone except Site safety and the requester”. `nameOf`: what groups and people are called. */
export function audienceInWords(audience: Audience, nameOf: (word: string) => Words): Said {
  const named = (word: string): Words => wordInWords(word) ?? nameOf(word);
  const requester = said('people:requester');
  const who = insideInWords(audience.in, named);
  const plus = audience.requester !== 'in' ? who : who === null ? requester : said('people:andRequester', { who });
  const groups = [...audience.outOf.map(named), ...(audience.requester === 'out' ? [requester] : [])];
  const some = plus ?? said('people:nobody');
  return groups.length > 0 ? said('people:exceptGroups', { who: some, groups }) : some;
}

function insideInWords(inside: Audience['in'], named: (word: string) => Words): Said | null {
  if ('everyone' in inside) return said('people:everyone');
  const groups = ('anyOf' in inside ? inside.anyOf : inside.allOf).map(named);
  if (groups.length === 0) return null;
  return 'anyOf' in inside ? said('people:anyOf', { groups }) : said('people:allOf', { groups });
}

/** Whether an audience means everyone, with nobody left out. */
export const isForAll = ({ in: inside, outOf }: Audience): boolean => 'everyone' in inside && outOf.length === 0;

/** The words that an audience names. */
export const wordsIn = ({ in: inside, outOf }: Audience): readonly string[] => [
  ...outOf,
  ...('anyOf' in inside ? inside.anyOf : 'allOf' in inside ? inside.allOf : []),
];

/** The keys of the groups that an audience names. */
export const groupsIn = (audience: Audience): readonly string[] => wordsIn(audience).filter(isGroup);

/** The ids of the people whom an audience names. */
export const peopleIn = (audience: Audience): readonly string[] =>
  wordsIn(audience).flatMap((word) => (word.startsWith('@') ? [word.slice(1)] : []));

/** Whether a word of an audience says what somebody is to the request in question. */
export const isRelation = (word: string): boolean => word.startsWith('~') && word !== CONTACT;

/** The conditions on profiles that an audience names. */
export const profileConditionsIn = (audience: Audience): readonly string[] =>
  wordsIn(audience).flatMap((word) => (word.startsWith('?') ? [word.slice(1)] : []));

/** Whether an audience tells people apart by what they may do. */
export const asksRights = (audience: Audience): boolean => wordsIn(audience).some((word) => word.startsWith('+'));

/** Whether a word of an audience is the key of a group. */
export const isGroup = (word: string): boolean => !/^[@~?+]/.test(word);

/** The same audience with other words in the place of some. */
export function inPlace(audience: Audience, words: Readonly<Record<string, string>>): Audience {
  const { in: inside, outOf } = audience;
  const placed = (keys: readonly string[]): readonly string[] => [...new Set(keys.map((key) => words[key] ?? key))];
  return {
    ...audience,
    in:
      'anyOf' in inside
        ? { anyOf: placed(inside.anyOf) }
        : 'allOf' in inside
          ? { allOf: placed(inside.allOf) }
          : inside,
    outOf: placed(outOf),
  };
}

/** The same audience without the people it names. */
export function withoutPeople(audience: Audience): Audience {
  const { in: inside, outOf } = audience;
  const rest = (words: readonly string[]): readonly string[] => words.filter((word) => !word.startsWith('@'));
  return {
    ...audience,
    in:
      'anyOf' in inside
        ? { anyOf: rest(inside.anyOf) }
        : // Whoever is all of them and somebody else as well is nobody.
          'allOf' in inside
          ? { allOf: rest(inside.allOf).length === inside.allOf.length ? inside.allOf : [] }
          : inside,
    outOf: rest(outOf),
  };
}
