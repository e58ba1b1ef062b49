import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { moveTo } from './boardMoves.ts';

type Sheet = AnswerOf<'sheet'>;
type Valued = Pick<AnswerOf<'lookAtBoard'>['columns'][number], 'value' | 'label'>;

/** Gives a request other values of some things, one after the other, as its sheet would; tells what came of it. */
export function useMoves(): (sheet: Sheet, to: readonly (readonly [string, Valued])[]) => Promise<void> {
  const [moveStage] = floorApi.useMoveStageMutation();
  const [assign] = floorApi.useAssignMutation();
  const [reroute] = floorApi.useRerouteMutation();
  const [changeFields] = floorApi.useChangeFieldsMutation();
  return async (sheet, to) => {
    const { number } = sheet;
    let { version } = sheet;
    for (const [subject, { value }] of to) {
      const move = moveTo(sheet, subject, value);
      const of = { number, version };
      const done =
        move.does === 'moveStage'
          ? await moveStage({ ...of, body: move.body })
          : move.does === 'assign'
            ? await assign({ ...of, body: move.body })
            : move.does === 'reroute'
              ? await reroute({ ...of, body: move.body })
              : await changeFields({ ...of, body: move.body });
      if ('error' in done) {
        toast.error(refusalInWords(problemOf(done.error)));
        return;
      }
      ({ version } = done.data as { version: number });
    }
    toast(say('views:moved', { number, to: to.map(([, { label }]) => told(label) || say('views:noValue')) }));
  };
}
