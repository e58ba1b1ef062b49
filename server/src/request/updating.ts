import { changedOver, completedOver, questionsOf, saidIn, stoodIn } from '@tolvek/core/form';
import type { RawAnswers, RequestFacts } from '@tolvek/core/register';
import { filesNamed } from '../files/commands.ts';
import type { Reader } from '../platform/database.ts';
import type { AskedRelease } from './askedAt.ts';
import type { Changing } from './changeAnswers.ts';
import type { Theirs } from './theirs.ts';

/**
 * What answers to an update form change of what is theirs, ready to be read or stored; `facts`: what the form may know of
 * who asks, with what these answers and what stands there name. `questions`: the fields that it asks for, whatever
 * stands there.
 */
export function changingBy(
  db: Reader,
  asked: AskedRelease,
  { open }: Theirs,
  said: RawAnswers,
  facts: RequestFacts,
): Changing & { readonly questions: readonly string[] } {
  const { design, formId } = asked.release;
  const { request } = open;
  const answers = saidIn(said);
  const stood = stoodIn(design, open.reading.only(request.values));
  const files = [
    ...filesNamed(db, request.formId, design.fields, stood, request.id),
    ...filesNamed(db, formId, design.fields, answers, request.id),
  ];
  const over = completedOver(asked.complete, stood, answers, { ...facts, files });
  const changes = changedOver(design.fields, design.updates?.by ?? [], over, answers);
  const questions = questionsOf(design.parts).map(({ field }) => field);
  const keys = new Set([...questions, ...Object.keys(changes)]);
  const asksFor = design.fields.flatMap(({ key, type }) => {
    if (!keys.has(key)) return [];
    if (type.kind !== 'line-items') return [{ key, writable: true }];
    const columns = type.columns.map((column) => ({ key: column.key, writable: column.formula === undefined }));
    return [{ key, writable: true, lines: { columns, mayAdd: true, mayRemove: true } }];
  });
  return {
    changes,
    asker: request.requesterId,
    asked: asksFor,
    formId,
    asks: () => ({ problems: over.problems }),
    questions,
  };
}
