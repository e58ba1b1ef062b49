import { measureAnalysis, measureKeystroke, measureProof, measureRows } from './analysis.ts';
import { measureAssignment } from './assignment.ts';
import { measureEditions } from './editions.ts';
import { measureFlow } from './flow.ts';
import { measureForecast } from './forecast.ts';
import { measureLetters } from './letters.ts';
import { measurePlanChange } from './planChange.ts';
import { answering } from './processes.ts';
import { measureReveal } from './reveal.ts';
import { measureRules } from './rules.ts';
import { measureBombs } from './sheets.ts';

/** What core computes, in a process of its own: nothing else is in its memory or on its thread. */
answering({
  rules: () => measureRules(),
  analysis: () => measureAnalysis(),
  keystroke: async () => [await measureKeystroke()],
  proof: async () => [await measureProof()],
  rows: () => measureRows(),
  bombs: () => measureBombs(),
  flow: () => measureFlow(),
  planChange: () => measurePlanChange(),
  reveal: () => measureReveal(),
  editions: () => measureEditions(),
  assignment: () => measureAssignment(),
  forecast: () => measureForecast(),
  letters: () => measureLetters(),
});
