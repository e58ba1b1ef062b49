import { type Said, said } from '@tolvek/words';
import type { BaseLevels } from '../access/index.ts';
import { type DoorDesign, doorAt } from '../door/index.ts';
import { allQuestionsOf, type FormDesign, partName } from '../form/index.ts';
import { isForAll } from '../people/index.ts';

/** What is settled of people from outside, in the order of the questions. */
export const OUTSIDE_STEPS = ['whose', 'who', 'refused', 'asking', 'past'] as const;
export type OutsideStep = (typeof OUTSIDE_STEPS)[number];

/** What would not go as it was meant, at the step where it is mended. */
export interface OutsideFinding {
  readonly step: OutsideStep;
  readonly message: Said;
}

interface Around {
  /** The draft: what people are asked, and in which words. */
  readonly form: Pick<FormDesign, 'fields' | 'parts' | 'editions'>;
  readonly stages: readonly { readonly label: string; readonly publicLabel: string }[];
  /** Whether somebody can ask by it at all. */
  readonly isReleased: boolean;
  readonly isStopped: boolean;
  /** What whoever asked reads where no rule says otherwise. */
  readonly reads: BaseLevels['requester'];
  /** Epoch ms. */
  readonly now: number;
}

/**
 * What of an outside door and all around it would surprise: whoever comes in, whoever is refused, and where they see
 * what became of what they sent. What can’t be put in force at all is found by the door itself.
 */
export function outsideFindings(door: DoorDesign, around: Around): readonly OutsideFinding[] {
  const { audience, unnamed, proves, follows, whose, says, slowsRobots } = door;
  const { form, stages, reads } = around;
  const isOpen = isForAll(audience);
  const questions = allQuestionsOf(form);
  const labelOf = (key: string): string => partName(form, key);
  const found: OutsideFinding[] = [];
  const add = (step: OutsideStep, message: Said): void => void found.push({ step, message });

  if (whose !== undefined) {
    const asked = questions.find(({ field }) => field === whose);
    const isMade = form.fields.some(({ key, source }) => key === whose && source !== 'asked');
    if (!asked && !isMade) add('whose', said('outside:whoseNotAsked', { field: labelOf(whose) }));
    else if (!asked?.required) add('whose', said('outside:whoseOptional', { field: labelOf(whose) }));
  }
  if (!around.isReleased) add('who', said('outside:notReleased'));
  else if (around.isStopped) add('who', said('outside:stopped'));
  else if (doorAt(door, around.now) !== 'open') add('who', said('outside:notOpen'));
  if ((unnamed || proves === 'never') && !slowsRobots) add('who', said('outside:robots'));
  if (!isOpen && (says?.others ?? '').trim() === '') add('refused', said('outside:noOthersWords'));
  const isCalled = (key: string): boolean => form.fields.some((field) => field.key === key && field.called);
  const unworded = questions
    .filter(({ asks, field }) => asks.trim() === '' && !isCalled(field))
    .map(({ field }) => labelOf(field));
  if (unworded.length > 0) add('asking', said('outside:labelsAsWords', { labels: unworded }));
  if (unnamed) add('past', said('outside:unnamedPast'));
  else {
    if (reads.answers === 'hidden') add('past', said('outside:pastHidden'));
    if (!isOpen && !follows) add('past', said('outside:linkEnough'));
    const read = form.fields.filter(
      ({ source, called }) =>
        source !== 'asked' && reads[source === 'desk-only' ? 'staffOnly' : 'made'] === 'read' && !called,
    );
    if (read.length > 0) add('past', said('outside:labelsOnPage', { labels: read.map(({ label }) => label) }));
  }
  const wordless = stages.filter(({ publicLabel }) => publicLabel.trim() === '').map(({ label }) => label);
  if (wordless.length > 0) add('past', said('outside:stageNoWords', { stages: wordless }));
  return found;
}
