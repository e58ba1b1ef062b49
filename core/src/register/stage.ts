import type { Translations } from '../design/index.ts';

export type Phase = 'arrived' | 'working' | 'paused' | 'finished';

/** How somebody stands to a request who may move it. */
export const MOVERS = ['handler', 'team', 'decider'] as const;
export type MoverRelation = (typeof MOVERS)[number];
/** What somebody can be to a request besides asking it: those, who typed it in, on whose behalf it was asked, who follows it. */
export const PARTY_RELATIONS = [...MOVERS, 'entered', 'behalf', 'follower'] as const;
export type PartyRelation = (typeof PARTY_RELATIONS)[number];

/** One way on from a stage. */
export interface Move {
  /** The stage it leads to, by key. */
  readonly to: string;
  /** Who may: any of these, by relation or by group; whoever works on the request when there are none. */
  readonly relations: readonly MoverRelation[];
  readonly groups: readonly string[];
  /** Keys of the fields that have to be filled in before. */
  readonly filled: readonly string[];
  /** What has to hold: FEEL over the request; nothing when it is empty. */
  readonly when: string;
}

/** Where a request can be. The public label is what requesters read. */
export interface Stage {
  readonly key: string;
  readonly label: string;
  readonly publicLabel: string;
  /** The public label in other languages. */
  readonly translations?: Translations | undefined;
  readonly phase: Phase;
  /**
   * Set by the application when a decision is waited for or has refused; people can't move a
   * request there by hand.
   */
  readonly role?: 'deciding' | 'refused' | 'done' | 'withdrawn';
  /** No request comes here any more; those that are here stay until they are moved. */
  readonly retired?: true;
  /** The ways on from here; where nothing is said, a request goes to any stage. */
  readonly moves?: readonly Move[];
}

/**
 * The stage at which work on a request begins: the one that its row of the routing table names, as long as people can be
 * there; else the first in which requests arrive.
 */
export const stageToBegin = <At extends Pick<Stage, 'key' | 'phase' | 'retired'> & { readonly role?: string | null }>(
  stages: readonly At[],
  wanted?: string,
): At | undefined =>
  stages.find((stage) => stage.key === wanted && mayBegin(stage)) ??
  stages.find((stage) => stage.phase === 'arrived' && mayBegin(stage));

/** Whether work can begin at a stage: it waits for nobody, and is not over. */
export const mayBegin = ({
  phase,
  role,
  retired,
}: Pick<Stage, 'phase' | 'retired'> & { readonly role?: string | null }): boolean =>
  !role && !retired && phase !== 'finished';

export const priorities = ['low', 'normal', 'high'] as const;
export type Priority = (typeof priorities)[number];

/**
 * The stages a coordinator may free a request to, from wherever it is: what waits for a decision or
 * was refused, or stands where nobody can move it on.
 */
export const stagesToFreeTo = (stages: readonly Stage[], current: Stage): readonly Stage[] =>
  stages.filter(
    (stage) => stage.key !== current.key && !stage.retired && stage.role !== 'deciding' && stage.role !== 'refused',
  );

/**
 * The stages that people may ever move a request to from here; a decision that is waited for has to
 * be made first, and what whoever asked has withdrawn is brought back by a coordinator alone.
 */
export function stagesToMoveTo(stages: readonly Stage[], current: Stage): readonly Stage[] {
  if (current.role === 'deciding' || current.role === 'refused' || current.role === 'withdrawn') return [];
  return stagesToFreeTo(stages, current).filter((stage) => stage.role !== 'withdrawn');
}
