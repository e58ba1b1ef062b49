import type { AnswerOf } from '@tolvek/contract';
import { isStretch } from '@tolvek/core/report';
import { say } from '../../wire/words.ts';

/** Some days as a report calls them: a whole stretch by its name. */
export const daysSaid = ({ over, ...days }: Pick<AnswerOf<'reportCopy'>, 'over' | 'from' | 'to'>): string =>
  isStretch(over, days) ? say(`views:stretch.${over}`, { day: days.from }) : say('reports:between', days);
