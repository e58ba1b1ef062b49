import { said } from '@tolvek/words';
import type { Problem } from '../register/index.ts';
import type { DoorDesign } from './door.ts';

/** What is wrong with whether somebody agreed. `version`: of the text that they agreed to. */
export function consentProblems(
  { consent }: Pick<DoorDesign, 'consent'>,
  version: number | undefined,
): readonly Problem[] {
  if (!consent || version !== undefined) return [];
  return [
    {
      ...{ field: 'consent', message: said('answers:consentMissing'), fix: said('answers:giveConsent') },
      why: 'unanswered',
    },
  ];
}
