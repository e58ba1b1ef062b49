import { said, type Words } from '@tolvek/words';
import type { SkillAsked } from '../../assignment/index.ts';
import type { Scope } from '../../expression/index.ts';
import { own } from '../../own/index.ts';
import { allRows, mayBe, wishesIn } from '../../routing/index.ts';
import type { FormDesign } from '../design.ts';
import type { Add } from './finding.ts';

/** The skills there are, and who has today what rules of handlers ask for, by what they ask for as one word. */
export interface SkillsAround {
  readonly known: readonly string[];
  readonly able: Readonly<Record<string, readonly string[]>>;
}

/** The rosters there are, by key: what each is called, and when nobody will be on duty first, where that is soon. */
export type RostersAround = Readonly<
  Record<string, { readonly name: string /** ISO 8601. */; readonly gap: string | null }>
>;

/** What is asked for, as one word. */
export const skillWord = ({ skill, least, months = 0 }: SkillAsked): string => `${skill} ${least} ${months}`;

interface Around {
  readonly scope: Scope;
  readonly groups: ReadonlyMap<string, Words>;
  readonly strangers: readonly string[];
  readonly members: Readonly<Record<string, readonly string[]>> | undefined;
  readonly skills: SkillsAround | null | undefined;
  readonly rosters: RostersAround | undefined;
}

const rowsFollowed = (routing: FormDesign['routing']) =>
  allRows(routing).map(({ id, outcome: { followers = [] } }) => ({ id, followers }));

/** What is wrong or doubtful in how requests find their handlers. */
export function handlerFindings(
  { routing, fields }: FormDesign,
  { scope, groups, strangers, members, skills, rosters }: Around,
  add: Add,
): void {
  const isPerson = (field: string): boolean => fields.some(({ key, type }) => key === field && type.kind === 'person');
  for (const wish of wishesIn(routing))
    if (!fields.some(({ key }) => key === wish)) add('error', 'routing', 'wishes', said('findings:wishLostField'));
  for (const { id, followers } of rowsFollowed(routing))
    for (const each of followers) {
      if ('group' in each && !groups.has(each.group)) add('error', 'routing', id, said('findings:followerLostGroup'));
      if ('person' in each && strangers.includes(each.person))
        add('error', 'routing', id, said('findings:followerGone'));
      if ('field' in each && !isPerson(each.field)) add('error', 'routing', id, said('findings:followerLostField'));
    }
  for (const row of allRows(routing)) {
    const { id, outcome, leaves } = row;
    const { handler } = outcome;
    if (!handler || leaves.includes('handler')) continue;
    const ofTeam = handler.ways.some(({ by }) => by === 'load' || by === 'turn' || by === 'skill');
    for (const way of handler.ways) {
      if (way.by === 'person' && strangers.includes(way.person))
        add('error', 'routing', id, said('findings:handlerGone'));
      if (way.by === 'field' && !isPerson(way.field)) add('error', 'routing', id, said('findings:handlerLostField'));
    }
    const teams = mayBe(row, 'team', () => scope);
    for (const way of handler.ways) {
      if (way.by !== 'skill' || skills === undefined) continue;
      if (skills === null) add('caution', 'routing', id, said('findings:handlerNoSkills'));
      else if (!skills.known.includes(way.skill)) add('error', 'routing', id, said('findings:handlerLostSkill'));
      else if (
        members &&
        teams.every((team) => !members[team]?.some((each) => skills.able[skillWord(way)]?.includes(each)))
      )
        add('caution', 'routing', id, said('findings:handlerUnskilled'));
    }
    for (const way of handler.ways) {
      if (way.by !== 'duty' || rosters === undefined) continue;
      const roster = own(rosters, way.roster);
      if (!roster) add('error', 'routing', id, said('findings:handlerLostRoster'));
      else if (roster.gap !== null && !handler.ways.some(({ by }) => by === 'person'))
        add('caution', 'routing', id, said('findings:rosterGap', { roster: roster.name, at: roster.gap }));
    }
    if (ofTeam && members && teams.some((team) => (members[team] ?? []).length === 0))
      add('caution', 'routing', id, said('findings:handlerNobody'));
    // An answer may name nobody, and somebody may come for the first time.
    if (!ofTeam && !handler.ways.some(({ by }) => by === 'person'))
      add('caution', 'routing', id, said('findings:handlerMayLack'));
  }
}
