import { type Said, said, type Words } from '@tolvek/words';
import {
  compile,
  conditionFindings,
  conditionInWords,
  namesIn,
  parseExpression,
  type Scope,
  type Slots,
} from '../expression/index.ts';
import type { Field, Values } from './field.ts';
import type { RequestFacts } from './requestScope.ts';
import { type Move, type MoverRelation, type Stage, stagesToMoveTo } from './stage.ts';
import {
  type KnownStanding,
  type RequestStanding,
  type StandingViewer,
  standingScope,
  standingSlots,
} from './standingScope.ts';

/** What of a register its moves depend on. */
export interface MovingIn {
  readonly stages: readonly Stage[];
  readonly fields: readonly Field[];
}

/** Who wants to move a request, and what it holds. */
export interface MovedBy {
  /** How they stand to it, and their groups by key. */
  readonly relations: ReadonlySet<MoverRelation>;
  readonly groups: readonly string[];
  readonly values: Values;
  /** Read only where a condition asks. */
  readonly facts: () => RequestFacts;
  readonly standing: () => RequestStanding;
  readonly me: () => StandingViewer;
  /** Keys of the fields that are closed to nobody who works on it: a move asks for no others. */
  readonly open: ReadonlySet<string>;
  /** What groups, people and stages are called. */
  readonly known: () => KnownStanding;
}

/** One way on, as it stands for somebody: `whyNot` is null where it can be taken. */
export interface PossibleMove {
  readonly stage: Stage;
  readonly whyNot: Words | null;
}

/** How whoever may take a move is called. */
export const MOVER_WORDS: Readonly<Record<MoverRelation, Said>> = {
  handler: said('people:itsHandler'),
  team: said('people:itsTeam'),
  decider: said('people:itsDecider'),
};

/**
 * The names that the condition of a move may use: fields that everybody at the desk may read, facts,
 * where the request stands, and who moves it.
 */
export const moveScope = ({ fields, stages }: MovingIn, open: ReadonlySet<string>, known: KnownStanding = {}): Scope =>
  standingScope(openOf(fields, open), { stages, ...known });

const openOf = (fields: readonly Field[], open: ReadonlySet<string>): readonly Field[] =>
  fields.filter(({ key }) => open.has(key));

/** Who may take a move: its handler, or Laboratory service. */
export function moversInWords(
  { relations, groups }: Pick<Move, 'relations' | 'groups'>,
  groupName: (key: string) => string,
): readonly Words[] {
  const who = [...relations.map((relation) => MOVER_WORDS[relation]), ...groups.map(groupName)];
  return who.length > 0 ? who : [said('people:itsWorkers')];
}

/** The ways on from a stage, and for each that can’t be taken now, why not. Nothing is said of values. */
export function movesFrom(register: MovingIn, at: Stage, by: MovedBy): readonly PossibleMove[] {
  const targets = stagesToMoveTo(register.stages, at);
  if (at.moves === undefined) return targets.map((stage) => ({ stage, whyNot: null }));
  return at.moves.flatMap((move): readonly PossibleMove[] => {
    const stage = targets.find((each) => each.key === move.to);
    return stage ? [{ stage, whyNot: whyNotMove(register, move, by) }] : [];
  });
}

function whyNotMove(register: MovingIn, move: Move, by: MovedBy): Words | null {
  const { fields } = register;
  const { relations, groups, filled, when } = move;
  const isOpenToAll = relations.length + groups.length === 0;
  if (
    !isOpenToAll &&
    !relations.some((relation) => by.relations.has(relation)) &&
    !groups.some((group) => by.groups.includes(group))
  )
    return said('moves:onlyThese', {
      who: moversInWords(move, (key) => by.known().groups?.find((group) => group.key === key)?.label ?? key),
    });
  const reads = [...filled, ...namesIn(when).filter((name) => fields.some(({ key }) => key === name))];
  // A verdict would tell what the plan hides: whatever it is, a coordinator looks at it.
  if (reads.some((key) => !by.open.has(key))) return said('moves:dependsOnHidden');
  const missing = filled.flatMap((key) =>
    Object.hasOwn(by.values, key) ? [] : [fields.find((field) => field.key === key)?.label ?? key],
  );
  if (missing.length > 0) return said('moves:fillInFirst', { fields: missing });
  if (when.trim() === '') return null;
  const parsed = parseExpression(when);
  const scope = moveScope(register, by.open, by.known());
  const slots = (): Slots => standingSlots(openOf(fields, by.open), by.values, by.facts(), by.standing(), by.me());
  if (parsed.ok && compile(parsed.value, scope)(slots(), null) === true) return null;
  return parsed.ok
    ? said('moves:onceTrue', { condition: conditionInWords(parsed.value, scope) })
    : said('moves:conditionUnreadable');
}

/** What is wrong with the moves of a register’s stages, in sentences, each with the stage it begins at. */
export function moveFindings({
  stages,
  fields,
}: MovingIn): readonly { readonly at: string; readonly message: Words }[] {
  const scope = moveScope({ stages, fields }, new Set(fields.map(({ key }) => key)));
  return stages.flatMap((stage) => {
    const wrong = (message: Words) => ({ at: stage.key, message });
    const moves = stage.moves ?? [];
    const twice = moves.find((move, place) => moves.findIndex((each) => each.to === move.to) !== place);
    return [
      ...(twice ? [wrong(said('moves:twice', { stage: stage.label }))] : []),
      ...moves.flatMap((move) => {
        const to = stages.find((each) => each.key === move.to);
        if (!to || to.key === stage.key) return [wrong(said('moves:nowhere', { stage: stage.label }))];
        const way = { stage: stage.label, to: to.label };
        if (to.role === 'deciding' || to.role === 'refused' || to.role === 'withdrawn')
          return [wrong(said('moves:notByHand', way))];
        const unknown = move.filled.filter((key) => !fields.some((field) => field.key === key));
        const found = move.when.trim() === '' ? [] : conditionFindings(move.when, scope);
        return [
          ...unknown.map(() => wrong(said('moves:noField', way))),
          ...found.map(({ message }) => wrong(said('moves:condition', { ...way, message }))),
        ];
      }),
    ];
  });
}

/** The keys of the fields that moves ask for, each with the stage the move begins at. */
export const askedByMoves = ({
  stages,
  fields,
}: MovingIn): readonly { readonly field: string; readonly stage: Stage }[] =>
  stages.flatMap((stage) =>
    (stage.moves ?? []).flatMap((move) =>
      [...new Set([...move.filled, ...namesIn(move.when)])].flatMap((name) =>
        fields.some(({ key }) => key === name) ? [{ field: name, stage }] : [],
      ),
    ),
  );
