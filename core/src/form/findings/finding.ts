import type { Fix } from './fix.ts';

/** Something a check found in a draft. Errors stop a release; cautions do not. */
export interface Finding {
  readonly severity: 'error' | 'caution';
  readonly page: 'questions' | 'rules' | 'routing' | 'approval';
  /** The field key, part id, rule id or row id it is about. */
  readonly at: string;
  readonly message: string;
  /** What would mend it in one step, when there is such a step. */
  readonly fix?: Fix;
}

export type Add = (
  severity: Finding['severity'],
  page: Finding['page'],
  at: string,
  message: string,
  fix?: Fix,
) => void;
