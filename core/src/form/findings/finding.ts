import type { Words } from '@tolvek/words';
import type { Disclosure } from '../../access/index.ts';
import type { Fix } from './fix.ts';

/** Something a check found in a draft. Errors stop a release; cautions do not. */
export interface Finding {
  readonly severity: 'error' | 'caution';
  readonly page: 'questions' | 'rules' | 'editions' | 'routing' | 'approval' | 'notices' | 'languages';
  /** The field key, part id, rule id, edition id or row id it is about. */
  readonly at: string;
  readonly message: Words;
  /** The part of what it is about in which it stands, where that says it as well. */
  readonly of?: 'condition';
  /** What would mend it in one step, when there is such a step. */
  readonly fix?: Fix;
  /** The way that a value takes to somebody who may not read it, step by step in sentences. */
  readonly way?: readonly Words[];
  /** A field that tells of another one whose rules could protect it as well. */
  readonly protect?: { readonly source: string; readonly field: string };
  /** What would have to be allowed on purpose for that. */
  readonly allow?: Allowance;
  /** Keys of fields that could be given their place in the access plan. */
  readonly place?: readonly string[];
}

/** One way of a value, as a disclosure names it. */
export type Allowance = Pick<Disclosure, 'sink' | 'text' | 'source' | 'what'>;

export type Add = (
  severity: Finding['severity'],
  page: Finding['page'],
  at: string,
  message: Words,
  fix?: Fix,
  of?: Finding['of'],
) => void;
