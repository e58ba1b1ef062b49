import type { AboutRegister } from '@tolvek/contract';
import type { Right, Viewer } from '@tolvek/core/people';
import type { Logger } from 'pino';
import type { AtWork } from './atWork.ts';
import type { Clock } from './clock.ts';
import type { Config } from './config.ts';
import type { Database } from './database.ts';
import type { Live } from './live.ts';
import type { Problem } from './problem.ts';
import type { Troubles } from './troubles.ts';

/** Everything the commands and queries of the server stand on. */
export interface House {
  readonly db: Database;
  readonly clock: Clock;
  readonly config: Config;
  readonly live: Live;
  /** Who has begun to change what. */
  readonly atWork: AtWork;
  readonly log: Logger;
  /** What is wrong around the application just now. */
  readonly troubles: Troubles;
  /** Somebody by their id, as what decides about them knows them; null when they may not come in. */
  readonly viewerOf: (personId: string) => Viewer | null;
  /** A program by a key that it shows; null where that opens nothing. */
  readonly programBy: (key: string) => Viewer | null;
  /** Says which right is missing, and who can give it. */
  readonly rightMissing: (right: Right) => Problem;
  /** The id of the register that a form, a register or a door is about, by its key; null where there is none. */
  readonly registerOf: (by: AboutRegister['by'], key: string) => string | null;
  /** Whether the desk is laid: before, nothing is answered but its first start. */
  readonly isLaid: () => boolean;
  /** Wakes whoever sends letters; called after a commit. */
  readonly wakeOutbox: () => void;
  /** Wakes whoever does long work; called after a commit that added some. */
  readonly wakeJobs: () => void;
}
