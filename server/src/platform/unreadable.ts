import type { Problem as FieldProblem } from '@tolvek/core/register';
import { type Said, said, type Words } from '@tolvek/words';
import type { z } from 'zod';

type Issue = z.core.$ZodIssue;

/** What the contract's schema found wrong, as what is wrong with a field and the way out. */
export function unreadable(issue: Issue): readonly FieldProblem[] {
  if (issue.code === 'unrecognized_keys')
    return issue.keys.map((key) => ({
      field: [...issue.path, key].join('.'),
      message: said('wire:unknownPart', { name: key }),
      fix: said('wire:leaveOut'),
    }));
  return [{ field: issue.path.join('.') || 'body', ...inWords(issue) }];
}

interface Told {
  readonly message: Words;
  readonly fix: Said;
}

function inWords(issue: Issue): Told {
  const correct = said('wire:correctIt');
  // A code of our own, given where the schema is written.
  if (issue.message.startsWith('say ')) return { message: { say: issue.message.slice(4) }, fix: correct };
  switch (issue.code) {
    case 'too_big':
      return tooBig(issue.origin, Number(issue.maximum));
    case 'too_small':
      return tooSmall(issue.origin, Number(issue.minimum));
    case 'invalid_type':
      return issue.message.endsWith('received undefined')
        ? { message: said('wire:missing'), fix: said('wire:fillIn') }
        : { message: said('wire:wrongKind'), fix: correct };
    case 'invalid_value':
      return { message: said('wire:notOneOf', { options: issue.values.map(String) }), fix: correct };
    case 'invalid_format':
      return { message: said('wire:wrongFormat'), fix: correct };
    default:
      return { message: said('wire:wrongKind'), fix: correct };
  }
}

function tooBig(origin: string, most: number): Told {
  if (origin === 'string') return { message: said('wire:textTooLong', { count: most }), fix: said('wire:shorten') };
  if (origin === 'array' || origin === 'set')
    return { message: said('wire:tooManyEntries', { count: most }), fix: said('wire:removeSome') };
  return { message: said('wire:numberTooHigh', { most }), fix: said('wire:changeNumber') };
}

function tooSmall(origin: string, least: number): Told {
  if (origin === 'string') return { message: said('wire:textMissing'), fix: said('wire:fillIn') };
  if (origin === 'array' || origin === 'set')
    return { message: said('wire:tooFewEntries', { count: least }), fix: said('wire:addSome') };
  return { message: said('wire:numberTooLow', { least }), fix: said('wire:changeNumber') };
}
