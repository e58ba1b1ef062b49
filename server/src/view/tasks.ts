import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { dataTask } from '../platform/apart.ts';
import { task } from '../platform/workers.ts';

/** What takes long over very many rows: all that a view tells of them at once. */
const overAll = <Route extends 'addUpView' | 'lookAtChart' | 'lookAtTotals' | 'lookAtMatrix' | 'lookAtBoard'>(
  route: Route,
) => dataTask<readonly [Viewer, BodyOf<Route>], AnswerOf<Route>>(route);
export const ADD_UP_VIEW = overAll('addUpView');
export const LOOK_AT_BOARD = overAll('lookAtBoard');
export const LOOK_AT_CHART = overAll('lookAtChart');
export const LOOK_AT_MATRIX = overAll('lookAtMatrix');
export const LOOK_AT_TOTALS = overAll('lookAtTotals');

/** Makes an index, as said; gives the code of SQLite where that is not to be had just now. */
export const MAKE_INDEX = task<{ readonly data: string; readonly make: string }, string | null>('makeIndex', 'data');
