import { said, type Words } from '@tolvek/words';
import { belongs, CONTACT, isGroup, isRelation, RELATION_WORDS, type Somebody, wordsIn } from '../people/index.ts';
import { PARTY_RELATIONS, type PartyRelation } from '../register/index.ts';
import type { Relation } from './accessTo.ts';
import { circumstancesOf, type KnownCircumstance, levelIn } from './circumstance.ts';
import { type AccessPlan, type AccessRule, type Activity, rulesAbout } from './plan.ts';

/**
 * One of the kinds of viewer that a plan tells apart, with the fewest groups that make it, in one of the circumstances
 * that it tells apart.
 */
export interface ViewerClass extends Somebody {
  readonly relation: Relation;
  readonly at: KnownCircumstance;
}

const RELATIONS: readonly Relation[] = [
  { isDesk: true, isRequester: false },
  { isDesk: false, isRequester: true },
  { isDesk: true, isRequester: true },
  { isDesk: false, isRequester: false, calledIn: true },
];
const BUILDER: Relation = { isDesk: true, isRequester: false, builds: true };

/** More kinds of viewer than this are not told apart one by one. */
const MOST = 4_096;

/** A rule’s audience, as far as some of the words are known. */
interface Known {
  readonly out: boolean;
  /** In any of the words so far. */
  readonly any: boolean;
  /** In all of the words so far. */
  readonly all: boolean;
}

/**
 * The kinds of viewer that a plan tells apart, each once: every way in which its rules can hold for
 * somebody, by relation to the request, and what they say by circumstance. Who works here just now does not matter:
 * people change groups. Null when there are more than 4,096. `activities`: those that are looked at; `builders`: whether
 * whoever builds forms is one of a kind.
 */
export function classesOf(
  { rules }: Pick<AccessPlan, 'rules'>,
  activities?: readonly Activity[],
  builders = false,
): readonly ViewerClass[] | null {
  const circumstances = circumstancesOf(rules, activities);
  if (circumstances === null) return null;
  const words = [...new Set(rules.flatMap((rule) => wordsIn(rule.audience)))].sort();
  let states: ReadonlyMap<string, { known: readonly Known[]; words: readonly string[] }> = new Map([
    ['', { known: rules.map(() => ({ out: false, any: false, all: true })), words: [] }],
  ]);
  for (const word of words) {
    const next = new Map<string, { known: readonly Known[]; words: readonly string[] }>();
    for (const isIn of [false, true])
      for (const state of states.values()) {
        // Nobody is two people.
        if (isIn && word.startsWith('@') && state.words.some((each) => each.startsWith('@'))) continue;
        const known = rules.map((rule, index) => withWord(rule, state.known[index] as Known, word, isIn));
        const person = state.words.some((each) => each.startsWith('@')) || (isIn && word.startsWith('@'));
        const key = `${person} ${known.map(({ out, any, all }) => Number(out) * 4 + Number(any) * 2 + Number(all)).join('')}`;
        const found = next.get(key);
        const members = isIn ? [...state.words, word] : state.words;
        // Of all who make this kind, the one in the fewest groups stands for it.
        if (!found || found.words.length > members.length) next.set(key, { known, words: members });
      }
    if (next.size > MOST) return null;
    states = next;
  }
  const levels = circumstances.map((at) => rules.map((rule) => levelIn(rule, at) ?? '-'));
  const classes = new Map<string, ViewerClass>();
  for (const { words: members } of states.values())
    for (const usual of builders ? [...RELATIONS, BUILDER] : RELATIONS) {
      // Nobody from outside works at the desk.
      const isContact = members.includes(CONTACT);
      if (isContact ? usual.isDesk : usual.calledIn && words.includes(CONTACT)) continue;
      const as = members.flatMap((word) => (isRelation(word) ? [word.slice(1) as PartyRelation] : []));
      const meets = members.flatMap((word) => (word.startsWith('?') ? [word.slice(1)] : []));
      const relation = as.length > 0 ? { ...usual, as } : usual;
      const person = members.find((word) => word.startsWith('@'))?.slice(1);
      const who: Somebody = {
        groups: members.filter(isGroup),
        ...(person === undefined ? {} : { personId: person }),
        ...(isContact ? { kind: 'contact' } : {}),
        ...(meets.length > 0 ? { meets } : {}),
      };
      const holds = rules.map((rule) => belongs(rule.audience, who, relation));
      for (const [index, at] of circumstances.entries()) {
        const said = holds.map((does, place) => (does ? levels[index]?.[place] : ' ')).join('.');
        const key = `${relation.isDesk} ${relation.isRequester} ${relation.calledIn ?? false} ${relation.builds ?? false} ${said}`;
        const found = classes.get(key);
        if (!found || sizeOf(found) > members.length) classes.set(key, { ...who, relation, at });
      }
      if (classes.size > MOST) return null;
    }
  return [...classes.values()];
}

/** How many words make a kind. */
const sizeOf = ({ groups, personId, relation, kind, meets = [] }: ViewerClass): number =>
  groups.length +
  meets.length +
  (personId === undefined ? 0 : 1) +
  (kind === 'contact' ? 1 : 0) +
  (relation.as?.length ?? 0);

/** What somebody can be to a request, as far as rules name it. */
export const moversNamed = ({ rules }: Pick<AccessPlan, 'rules'>): readonly PartyRelation[] =>
  PARTY_RELATIONS.filter((each) => rules.some(({ audience }) => wordsIn(audience).includes(`~${each}`)));

const stands = new WeakMap<Pick<AccessPlan, 'rules'>, readonly (readonly PartyRelation[])[]>();

/** Every way in which somebody can stand to a request as far as rules tell these apart, beside asking it. */
export function waysToStand(plan: Pick<AccessPlan, 'rules'>): readonly (readonly PartyRelation[])[] {
  let found = stands.get(plan);
  if (!found) {
    found = moversNamed(plan).reduce<readonly (readonly PartyRelation[])[]>(
      (ways, each) => ways.flatMap((way) => [way, [...way, each]]),
      [[]],
    );
    stands.set(plan, found);
  }
  return found;
}

/** The words that rules about some fields name: who is told apart by them. */
export const wordsTold = ({ rules }: Pick<AccessPlan, 'rules'>, fields: readonly string[]): readonly string[] => [
  ...new Set(rulesAbout(rules, fields).flatMap((rule) => wordsIn(rule.audience))),
];

function withWord({ audience }: AccessRule, before: Known, word: string, isIn: boolean): Known {
  const { in: inside, outOf } = audience;
  return {
    out: before.out || (isIn && outOf.includes(word)),
    any: before.any || (isIn && 'anyOf' in inside && inside.anyOf.includes(word)),
    all: before.all && (isIn || !('allOf' in inside) || !inside.allOf.includes(word)),
  };
}

/** A kind of viewer in words: “somebody of the desk who is not in Site safety”. */
export function classInWords(
  { groups, personId, relation, at, kind, meets = [] }: ViewerClass,
  named: readonly string[],
  nameOf: (word: string) => Words,
): Words {
  const is = (word: string): boolean =>
    isGroup(word)
      ? groups.includes(word)
      : word.startsWith('@')
        ? word.slice(1) === personId
        : word.startsWith('?')
          ? meets.includes(word.slice(1))
          : word === CONTACT
            ? kind === 'contact'
            : (relation.as ?? []).some((each) => word === `~${each}`);
  // A single person is named where they are meant, and not where they are not.
  const out = named.filter((word) => isGroup(word) && !is(word));
  const met = named.filter((word) => word.startsWith('?') && is(word));
  const person = personId !== undefined && named.includes(`@${personId}`) ? nameOf(`@${personId}`) : null;
  const related = named.find((word) => word.startsWith('~') && is(word));
  let who: Words = relation.isDesk
    ? said('people:someoneOfDesk')
    : said(relation.isRequester ? 'people:requester' : relation.calledIn ? 'people:calledIn' : 'people:someone');
  if (person !== null) who = person;
  else if (related) who = RELATION_WORDS[related as keyof typeof RELATION_WORDS];
  if (relation.builds) who = said('people:who.builds', { who });
  if (relation.isDesk && relation.isRequester) who = said('people:who.requester', { who });
  if (groups.length > 0) who = said('people:who.in', { who, groups: groups.map(nameOf) });
  for (const word of met) who = said('people:who.meets', { who, what: nameOf(word) });
  if (out.length > 0 && person === null) who = said('people:who.out', { who, groups: out.map(nameOf) });
  return at.exceptional.length > 0 ? said('people:who.where', { who, rules: at.exceptional }) : who;
}

/** A kind of viewer in words, as far as rules about some fields tell it apart from others. */
export function classTold(
  each: ViewerClass,
  { rules }: Pick<AccessPlan, 'rules'>,
  fields: readonly string[],
  nameOf: (word: string) => Words,
): Words {
  const concerned = new Set(rulesAbout(rules, fields).map(({ name }) => name));
  const exceptional = each.at.exceptional.filter((name) => concerned.has(name));
  return classInWords({ ...each, at: { ...each.at, exceptional } }, wordsTold({ rules }, fields), nameOf);
}
