import type { Phase, Priority } from '../register/index.ts';
import type { SkillAsked } from './skills.ts';

/** One way of finding who handles a request. */
export type HandlerWay =
  /** Whoever handled the last request of the same person. */
  | { readonly by: 'last' }
  /** Whoever a field for a person of the request names. */
  | { readonly by: 'field'; readonly field: string }
  /** Whoever of the team has the least to do. */
  | { readonly by: 'load' }
  /** Whoever of the team was given a request longest ago. */
  | { readonly by: 'turn' }
  /** Of those of the team who can do something, whoever has the least to do. */
  | (SkillAsked & { readonly by: 'skill' })
  /** Of those who are on duty by a roster, of the team or not, whoever has the least to do. */
  | DutyAsked
  /** One person, of the team or not. */
  | { readonly by: 'person'; readonly person: string };

export const HANDLER_WAYS = [
  'last',
  'field',
  'skill',
  'duty',
  'load',
  'turn',
  'person',
] as const satisfies readonly HandlerWay['by'][];

/** Whoever is on duty by a roster. */
export interface DutyAsked {
  readonly by: 'duty';
  /** The key of the roster. */
  readonly roster: string;
  /** Where nobody is on duty, whoever comes next has it. */
  readonly orNext?: boolean | undefined;
}

/** How a request finds its handler: the first way that finds somebody who is there. */
export interface HandlerRule {
  readonly ways: readonly HandlerWay[];
  /** Nobody is given more who handles so many that are not finished; however many when nothing is said. */
  readonly most?: number | undefined;
}

/** Some requests that somebody handles, alike in what they weigh. */
export interface Handled {
  /** How many there are. */
  readonly count: number;
  readonly priority: Priority;
  readonly phase: Phase;
  /** Whether it is due within four working hours, or late. */
  readonly isPressing: boolean;
}

/** Somebody who could handle a request. */
export interface Candidate {
  readonly person: string;
  /** Whether they are here today: active, and not away. */
  readonly isHere: boolean;
  /** Whether they are of its team. */
  readonly isOfTeam: boolean;
  readonly handles: readonly Handled[];
  /** When a rule gave them a request of this team last, epoch ms; null when never. */
  readonly lastGiven: number | null;
}

/** Why somebody who was thought of does not handle a request. */
export type PassedOver = 'away' | 'own' | 'full' | 'unskilled' | 'off-duty' | 'busier' | 'sooner' | 'stranger';

/** Who handles a request by a rule, and why nobody else. */
export interface Chosen {
  readonly person: string;
  /** The way that found them, and those before it that found nobody. */
  readonly by: HandlerWay['by'];
  /** The roster by which they are on duty, where that found them. */
  readonly roster?: string | undefined;
  readonly tried: readonly HandlerWay['by'][];
  readonly passed: readonly { readonly person: string; readonly why: PassedOver }[];
}

/** What a rule is asked about. */
export interface Asked {
  readonly candidates: readonly Candidate[];
  /** Whose request it is: none of them handles it. */
  readonly whose: readonly (string | null)[];
  /** Who handled the last request of the same person; null for nobody. */
  readonly last: string | null;
  /** Whom a field names; null for nobody. */
  readonly named: (field: string) => string | null;
  /** Whether somebody can do what is asked. */
  readonly can: (person: string, skill: SkillAsked) => boolean;
  /** Who is asked by a roster now, by id. */
  readonly onDuty: (duty: DutyAsked) => readonly string[];
}

const BY_PRIORITY: Readonly<Record<Priority, number>> = { high: 3, normal: 2, low: 1 };

/**
 * How much a request weighs on its handler: by its priority 1 to 3, twice that when it is due within four working hours
 * or late. What stands still weighs a quarter, what is finished nothing. The figures are the desk’s own convention.
 */
export function weightOf({ priority, phase, isPressing }: Omit<Handled, 'count'>): number {
  if (phase === 'finished') return 0;
  const weight = BY_PRIORITY[priority];
  if (phase === 'paused') return weight / 4;
  return isPressing ? weight * 2 : weight;
}

/** How much somebody has to do. */
export const loadOf = (handles: readonly Handled[]): number =>
  handles.reduce((sum, each) => sum + each.count * weightOf(each), 0);

/** How many requests somebody handles that are not finished. */
const openOf = (handles: readonly Handled[]): number =>
  handles.reduce((sum, { phase, count }) => (phase === 'finished' ? sum : sum + count), 0);

/**
 * Who handles a request by a rule: the first way that finds somebody who is there, has room and did not ask for it. Where
 * two have as little to do, or were given nothing yet, the one who was given something longest ago, then the first by id:
 * the same desk chooses the same. Null where no way finds anybody.
 */
export function chooseHandler({ ways, most }: HandlerRule, asked: Asked): Chosen | null {
  const { candidates, whose } = asked;
  const passed = new Map<string, PassedOver>();
  const fits = (candidate: Candidate | undefined): candidate is Candidate => {
    if (!candidate) return false;
    const why = whose.includes(candidate.person)
      ? 'own'
      : !candidate.isHere
        ? 'away'
        : most !== undefined && openOf(candidate.handles) >= most
          ? 'full'
          : null;
    if (why) passed.set(candidate.person, why);
    return why === null;
  };
  const known = (person: string | null): Candidate | undefined =>
    person === null ? undefined : candidates.find((each) => each.person === person);
  const tried: HandlerWay['by'][] = [];
  for (const way of ways) {
    const found = byWay(way, asked, { fits, known, passed });
    if (found) {
      passed.delete(found.person);
      const roster = way.by === 'duty' ? { roster: way.roster } : {};
      return {
        person: found.person,
        by: way.by,
        ...roster,
        tried,
        passed: [...passed].map(([person, why]) => ({ person, why })),
      };
    }
    tried.push(way.by);
  }
  return null;
}

interface Looking {
  readonly fits: (candidate: Candidate | undefined) => candidate is Candidate;
  readonly known: (person: string | null) => Candidate | undefined;
  readonly passed: Map<string, PassedOver>;
}

function byWay(way: HandlerWay, asked: Asked, looking: Looking): Candidate | null {
  const { candidates, last, named, can, onDuty } = asked;
  const { fits, known, passed } = looking;
  switch (way.by) {
    case 'last': {
      const candidate = known(last);
      // Whoever has left the team meanwhile is not asked for its requests.
      if (candidate && !candidate.isOfTeam) passed.set(candidate.person, 'stranger');
      return candidate?.isOfTeam && fits(candidate) ? candidate : null;
    }
    case 'field': {
      const candidate = known(named(way.field));
      return fits(candidate) ? candidate : null;
    }
    case 'person': {
      const candidate = known(way.person);
      return fits(candidate) ? candidate : null;
    }
    case 'duty': {
      const on = new Set(onDuty(way));
      return freest(
        way,
        candidates.filter(({ person, isOfTeam }) => isOfTeam || on.has(person)),
        looking,
        ({ person }) => (on.has(person) ? null : 'off-duty'),
      );
    }
    case 'skill':
    case 'load':
    case 'turn':
      return freest(
        way,
        candidates.filter(({ isOfTeam }) => isOfTeam),
        looking,
        ({ person }) => (way.by !== 'skill' || can(person, way) ? null : 'unskilled'),
      );
  }
}

/** Who of some has the least to do, or by turn was given something longest ago; the others are passed over. */
function freest(
  { by }: HandlerWay,
  some: readonly Candidate[],
  { fits, passed }: Looking,
  lacks: (candidate: Candidate) => PassedOver | null,
): Candidate | null {
  const free = some.filter((each) => {
    if (!fits(each)) return false;
    const why = lacks(each);
    if (why) passed.set(each.person, why);
    return why === null;
  });
  const loads = new Map(free.map((each) => [each.person, by === 'turn' ? 0 : loadOf(each.handles)]));
  const [first, ...others] = free.toSorted(
    (a, b) =>
      (loads.get(a.person) ?? 0) - (loads.get(b.person) ?? 0) ||
      (a.lastGiven ?? 0) - (b.lastGiven ?? 0) ||
      (a.person < b.person ? -1 : 1),
  );
  if (!first) return null;
  for (const { person } of others)
    passed.set(person, (loads.get(person) ?? 0) > (loads.get(first.person) ?? 0) ? 'busier' : 'sooner');
  return first;
}
