import type { ValueChange, VisibleField } from '@tolvek/core/access';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import {
  type Around,
  type Field,
  type Problem as FieldProblem,
  type FieldValue,
  type ItemRow,
  identifiedRows,
  type RawAnswer,
  type RawAnswers,
  type ReadAnswer,
  type RequestFacts,
  readAnswer,
  readLines,
  typedForm,
  type Values,
} from '@tolvek/core/register';
import type { Why } from '@tolvek/core/request';
import { said } from '@tolvek/words';
import { filesNamed } from '../files/commands.ts';
import type { Reader } from '../platform/database.ts';
import { wrongFields } from '../platform/problem.ts';
import { by, type Work } from '../platform/work.ts';
import { changeRequest } from './change.ts';
import { changesBetween, isSame } from './changes.ts';
import { takenAnswers } from './claims.ts';
import { factsOfRequest } from './facts.ts';
import { keepingOf } from './keeping.ts';
import type { OpenRequest } from './open.ts';
import type { RequestRow } from './queries.ts';
import { offerProblems } from './references.ts';

type Seen = Pick<VisibleField, 'key' | 'writable' | 'lines'>;

/** Answers that are to change a request. */
export interface Changing {
  readonly changes: RawAnswers;
  /** Who may hear which request has an answer already. */
  readonly asker: string | null;
  /** What may be changed, where it is not the plan that says so but a form that asks for it. */
  readonly asked?: readonly Seen[];
  /** The form that files were sent for: that of the request when nothing is said. */
  readonly formId?: string;
  /** What is wrong besides, with the answers changed. */
  readonly asks?: (
    changes: RawAnswers,
    facts: RequestFacts,
  ) => {
    readonly problems: readonly FieldProblem[];
    /** Keys of what is emptied with them, as the form asks for it no more. */
    readonly dropped?: readonly string[];
  };
  /** What is stored with them that nobody typed. */
  readonly along?: Values;
}

/** What changed answers come to. */
interface Read {
  readonly changes: readonly ValueChange[];
  readonly problems: readonly FieldProblem[];
  readonly warnings: { field: string; text: string }[];
}

/**
 * Reads answers that are to change a request, and stores nothing: each must be one that may be changed, understood, an
 * answer its kind allows, and sound by the rules of every saving.
 */
export function readChanges(db: Reader, open: OpenRequest<RequestRow>, input: Changing, now: number): Read {
  const { request, register, reading, fields } = open;
  const { formId = request.formId } = input;
  const facts = {
    ...factsOfRequest(db, request, register, now, { changes: input.changes }),
    files: filesNamed(db, formId, fields, { ...request.values, ...input.changes } as RawAnswers, request.id),
  };
  const visible = input.asked ?? open.laidOut.fields;
  const values: Record<string, FieldValue> = { ...request.values, ...input.along };
  const touched = new Set<string>();
  /** What was typed; lines with what may not be changed in them. */
  const typed: Record<string, RawAnswer> = {};
  const problems: FieldProblem[] = [];
  for (const [key, raw] of Object.entries(input.changes)) {
    const field = fields.find((each) => each.key === key);
    const seen = visible.find((each) => each.key === key);
    // A field that is hidden and a field that does not exist are refused in the same words.
    if (!field || !seen)
      problems.push({ field: key, message: said('answers:noField', { key }), fix: said('answers:removeIt') });
    else if (!seen.writable)
      problems.push({
        field: key,
        message: said('answers:readOnly', { label: field.label }),
        fix: said(open.relation.isDesk ? 'answers:askForRight' : 'answers:writeToDesk'),
      });
    else {
      const stood = request.values[key];
      const read = readField(field, seen, raw, facts, stood);
      if (read.state === 'wrong')
        problems.push({
          field: key,
          message: said('answers:fieldSays', { label: field.label, message: read.message }),
          fix: read.fix,
        });
      else {
        const said = read.state === 'value' ? read.value : null;
        const after =
          field.type.kind === 'line-items' && Array.isArray(said)
            ? identifiedRows((stood ?? []) as readonly ItemRow[], said as readonly ItemRow[], request.version)
            : said;
        if (isSame(stood ?? null, after)) continue;
        touched.add(key);
        typed[key] = seen.lines && after !== null ? typedForm(field, after) : raw;
        if (after === null) delete values[key];
        else values[key] = after;
      }
    }
  }
  const asks = input.asks?.(typed, facts);
  for (const key of asks?.dropped ?? []) {
    if (own(values, key) === undefined) continue;
    delete values[key];
    touched.add(key);
  }
  const kept = keepingOf(db, request, register, reading)(values, touched, facts);
  // What is wrong elsewhere, and was before, is no reason to refuse this change; what a rule
  // refuses is.
  const held = request.trial
    ? []
    : takenAnswers(db, {
        register,
        protection: reading.protection,
        values: kept.values,
        asker: input.asker,
        but: request,
      }).filter(
        (problem) =>
          touched.has(problem.field) ||
          register.unique.some(
            (rule) => rule.fields.includes(problem.field) && rule.fields.some((key) => touched.has(key)),
          ),
      );
  const notHere = offerProblems(
    db,
    // What is offered is told by what this viewer may read, and by nothing else.
    { fields, values: reading.only(kept.values), facts, asker: request.requesterId },
    touched,
  );
  const shown = [...visible, ...open.laidOut.fields];
  // What can’t be read is said once, and not by the form again.
  const unread = new Set(problems.map(({ field }) => field));
  const asked = (asks?.problems ?? []).filter(({ field }) => !unread.has(field));
  return {
    changes: changesBetween(fields, request.values, kept.values),
    problems: [
      ...problems,
      ...[...kept.problems, ...held, ...notHere, ...asked].map((problem) => unhidden(problem, shown)),
    ],
    warnings: kept.warnings.map(({ field, text }) => ({ field: isSeen(field, shown) ? field : 'form', text })),
  };
}

/**
 * Changes answers of a request that was opened for somebody. `version`: that of the request they were made on; as it
 * stands when nothing is said. `why`: how it stands in the history, as a change by hand when nothing is said.
 *
 * @throws Problem 422 for what may not be changed, or is no answer; 412 when somebody was faster.
 */
export function changeAnswers(
  work: Work,
  viewer: Viewer,
  open: OpenRequest<RequestRow>,
  {
    version: onVersion,
    why = { why: 'changed' },
    ...input
  }: Changing & { readonly version?: number; readonly why?: Why },
): { version: number; warnings: { field: string; text: string }[] } {
  const { changes, problems, warnings } = readChanges(work.tx, open, input, work.now);
  if (problems.length > 0) throw wrongFields(problems);
  if (changes.length === 0) return { version: open.request.version, warnings };
  const { version } = changeRequest(
    by(work, viewer.personId),
    open.request,
    { kind: 'values', ...why, changes },
    onVersion,
  );
  return { version, warnings };
}

/** Understands what somebody makes of a field: of lines they may not change in every column, the rest stays. */
function readField(
  field: Field,
  { lines }: Seen,
  raw: RawAnswer,
  around: Around,
  stood: FieldValue | undefined,
): ReadAnswer {
  const { type } = field;
  if (type.kind !== 'line-items' || !lines) return readAnswer(field, raw, around);
  return readLines({ type }, raw, around, { rows: (stood ?? []) as readonly ItemRow[], columns: lines.columns });
}

/** A problem of a field this viewer may not read does not name it. */
const unhidden = (problem: FieldProblem, open: readonly { readonly key: string }[]): FieldProblem =>
  problem.field === 'form' || isSeen(problem.field, open)
    ? problem
    : {
        field: 'form',
        message: said('answers:ruleRefuses'),
        fix: said('answers:askCoordinator'),
      };

const isSeen = (key: string, open: readonly { readonly key: string }[]): boolean =>
  open.some((field) => field.key === key);
