import type Sqlite from 'better-sqlite3';
import { deadlinesAsRows, thingsAreThings } from './deadlines.ts';
import { historyAsData } from './historyAsData.ts';
import { lengthsInMinutes } from './lengths.ts';
import { pathsOfRows } from './paths.ts';
import { placesOfCurrencies } from './places.ts';
import { registerOwns } from './registerOwns.ts';
import { pathsInSteps } from './rounds.ts';
import { severalDeadlines } from './severalDeadlines.ts';
import { peopleAreSought } from './sought.ts';

/**
 * What SQL can’t do in a migration, by its name. A step reads and writes rows as they were at that
 * moment, by types of its own: it goes on working when the tables of today have moved on.
 */
export const STEPS: Readonly<Record<string, (db: Sqlite.Database) => void>> = {
  '0015_history_as_data': historyAsData,
  '0016_register_owns': registerOwns,
  '0017_deadlines': deadlinesAsRows,
  '0018_things': thingsAreThings,
  '0019_rounds': pathsInSteps,
  '0023_places': placesOfCurrencies,
  '0026_lengths': lengthsInMinutes,
  '0042_people_at_once': peopleAreSought,
  '0062_paths_of_rows': pathsOfRows,
  '0064_several_deadlines': severalDeadlines,
};
