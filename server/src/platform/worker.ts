import { type Finding, type FormDesign, findingsOf, type Surroundings } from '@tolvek/core/form';

/** What a thread for heavy computation can do; each from plain data to plain data. */
export interface Work {
  readonly findings: (input: { readonly design: FormDesign; readonly around: Surroundings }) => readonly Finding[];
}

export const findings: Work['findings'] = ({ design, around }) => findingsOf(design, around);
