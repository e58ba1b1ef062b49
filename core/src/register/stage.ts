export type Phase = 'arrived' | 'working' | 'paused' | 'finished';

/** Where a request can be. The public label is what requesters read. */
export interface Stage {
  readonly key: string;
  readonly label: string;
  readonly publicLabel: string;
  readonly phase: Phase;
  /**
   * Set by the application when a decision is waited for or has refused; people can't move a
   * request there by hand.
   */
  readonly role?: 'deciding' | 'refused' | 'done' | 'withdrawn';
}

export const priorities = ['low', 'normal', 'high'] as const;
export type Priority = (typeof priorities)[number];

/**
 * The stages a coordinator may free a request to, from wherever it is: what waits for a decision or
 * was refused, or stands where nobody can move it on.
 */
export const stagesToFreeTo = (stages: readonly Stage[], current: Stage): readonly Stage[] =>
  stages.filter((stage) => stage.key !== current.key && stage.role !== 'deciding' && stage.role !== 'refused');

/**
 * The stages a person may move a request to from here; a decision that is waited for has to be made
 * first.
 */
export function stagesToMoveTo(stages: readonly Stage[], current: Stage): readonly Stage[] {
  if (current.role === 'deciding' || current.role === 'refused') return [];
  return stages.filter(
    (stage) =>
      stage.key !== current.key && stage.role !== 'deciding' && stage.role !== 'refused' && stage.role !== 'withdrawn',
  );
}
