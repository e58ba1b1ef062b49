import type { BodyOf } from '@tolvek/contract';
import { freshKey } from '@tolvek/core/form';
import { type Field, type Move, moversInWords, type Stage } from '@tolvek/core/register';
import { type Said, said } from '@tolvek/words';

export type StageDraft = BodyOf<'changeRegister'>['stages'][number];
type Stages = readonly StageDraft[];

/** Stages with one more at the end, under a key that none of them has. */
export const withStage = (stages: Stages, label: string, phase: Stage['phase']): StageDraft[] => [
  ...stages,
  { key: freshKey(label, new Set(stages.map(({ key }) => key))), label, publicLabel: label, phase },
];

export const withChange = (stages: Stages, key: string, change: Partial<StageDraft>): StageDraft[] =>
  stages.map((stage) => (stage.key === key ? { ...stage, ...change } : stage));

/** Stages without one that was never in force; no move leads to it any more. */
export const withoutStage = (stages: Stages, key: string): StageDraft[] =>
  stages
    .filter((stage) => stage.key !== key)
    .map((stage) => (stage.moves ? { ...stage, moves: stage.moves.filter((move) => move.to !== key) } : stage));

/** A stage that nothing comes to any more, or that is taken up again. */
export function withRetired(stages: Stages, key: string, isRetired: boolean): StageDraft[] {
  return stages.map((stage) => {
    if (stage.key !== key) return stage;
    const { retired: _, ...rest } = stage;
    return isRetired ? { ...rest, retired: true as const } : rest;
  });
}

/** Where people may move a request to from a stage, whoever they are. */
export const targetsOf = (stages: Stages, from: string): StageDraft[] =>
  stages.filter((stage) => stage.key !== from && !stage.retired && (stage.role === undefined || stage.role === 'done'));

/** A stage from which a request goes anywhere, or only where it is said: every way there was, at first. */
export function withWaysSaid(stages: Stages, key: string, isSaid: boolean): StageDraft[] {
  const moves = targetsOf(stages, key).map(
    ({ key: to }): Move => ({
      ...{ to, relations: [], groups: [], filled: [], when: '' },
    }),
  );
  return stages.map((stage) => {
    if (stage.key !== key) return stage;
    const { moves: _, ...rest } = stage;
    return isSaid ? { ...rest, moves } : rest;
  });
}

/** A stage with one of its ways changed, made or taken away. */
export function withMove(stages: Stages, key: string, to: string, change: Partial<Move> | null): StageDraft[] {
  return stages.map((stage) => {
    if (stage.key !== key || !stage.moves) return stage;
    const others = stage.moves.filter((move) => move.to !== to);
    if (change === null) return { ...stage, moves: others };
    const was = stage.moves.find((move) => move.to === to);
    if (was) return { ...stage, moves: stage.moves.map((move) => (move === was ? { ...move, ...change } : move)) };
    return { ...stage, moves: [...others, { to, relations: [], groups: [], filled: [], when: '', ...change }] };
  });
}

/** A way on in words: who can take it, and what has to be so before. `when`: its condition in labels. */
export function moveInWords(
  move: Move,
  { fields, groupName, when }: { fields: readonly Field[]; groupName: (key: string) => string; when: string },
): Said {
  const filled = move.filled.map((key) => fields.find((field) => field.key === key)?.label ?? key);
  const needs = [
    ...(filled.length > 0 ? [said('workshop:stage.needsFilled', { count: filled.length, fields: filled })] : []),
    ...(when === '' ? [] : [when]),
  ];
  const who = moversInWords(move, groupName);
  return needs.length === 0 ? said('workshop:stage.by', { who }) : said('workshop:stage.byOnce', { who, needs });
}
