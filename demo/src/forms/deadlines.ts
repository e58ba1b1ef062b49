import type { DeadlineRule } from '@tolvek/core/deadline';
import type { FormDesign } from '@tolvek/core/form';

const HOUR = 3_600_000;

/** A form whose requests are due by something besides their finish. */
export const withDeadlines = (design: FormDesign, more: readonly DeadlineRule[]): FormDesign => ({
  ...design,
  deadline: { ...design.deadline, deadlines: [...design.deadline.deadlines, ...more] },
});

/** A concern reminds whoever looks into it each week, for as long as it is open. */
export const WEEKLY: DeadlineRule = {
  ...{ key: 'look-again', name: 'Look again', begins: { on: 'arrival' }, stands: { on: 'never' } },
  ...{ length: { by: 'days', days: 5 }, ends: { on: 'finished' } },
  rings: [{ key: 'weekly', at: 0, again: 43.75 * HOUR, tells: ['working'], does: [] }],
};

/** Somebody of the team begins within two working days; where nobody does, it becomes urgent. */
export const FIRST_LOOK: DeadlineRule = {
  ...{ key: 'first-look', name: 'First look', begins: { on: 'arrival' }, stands: { on: 'paused' } },
  ...{ length: { by: 'days', days: 2 }, ends: { on: 'stages', stages: ['in_hand', 'waiting'] } },
  rings: [
    { key: 'soon', at: -2 * HOUR, tells: ['working'], does: [] },
    { key: 'late', at: 0, tells: ['leads'], does: [{ do: 'priority', to: 'high' }] },
  ],
};

/** Whoever asked is reminded on the working day before the samples are to arrive. */
export const SAMPLES_HERE: DeadlineRule = {
  ...{ key: 'samples', name: 'Samples arrive', begins: { on: 'arrival' }, stands: { on: 'never' } },
  ...{ length: { by: 'field', field: 'arrive', days: 0, counted: 'any' }, ends: { on: 'stages', stages: ['in_hand'] } },
  rings: [{ key: 'day-before', at: -9 * HOUR, tells: ['requester'], does: [] }],
};
