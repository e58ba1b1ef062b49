import type { AskedQuestion as Asked, Completion, ShownPart } from '@tolvek/core/form';
import { isSame } from '@tolvek/core/own';
import type { Field, Problem, RawAnswer } from '@tolvek/core/register';
import { Fragment, memo, type ReactNode, useCallback, useMemo, useRef } from 'react';
import { LiveText } from '../ui/LiveText.tsx';
import { say, told } from '../wire/words.ts';
import { AskedQuestion } from './AskedQuestion.tsx';

interface FormPartsProps {
  readonly parts: readonly ShownPart[];
  readonly fields: readonly Field[];
  readonly completion: Pick<Completion, 'warnings'>;
  readonly typedAt: (field: string) => RawAnswer | undefined;
  readonly problemsAt: (field: string) => readonly Problem[];
  readonly onChange: (field: string, value: RawAnswer) => void;
  readonly onBlur?: (field: string) => void;
  readonly prefix?: string;
  /** What stands under a question. */
  readonly under?: ((field: string) => ReactNode) | undefined;
  /**
   * In a letter begun from an instruction: the request’s number, or the form’s title before there
   * is one.
   */
  readonly about: string;
}

/**
 * The parts of a form in their order: sections, words, questions. A question is drawn again when something of it
 * changed, and not when another was answered.
 */
export function FormParts({
  parts,
  fields,
  completion,
  typedAt,
  problemsAt,
  onChange,
  onBlur,
  prefix = 'answer',
  under,
  about,
}: FormPartsProps) {
  const handlers = useRef({ onChange, onBlur });
  handlers.current = { onChange, onBlur };
  const change = useCallback((field: string, value: RawAnswer) => handlers.current.onChange(field, value), []);
  const leave = useCallback((field: string) => handlers.current.onBlur?.(field), []);
  const known = useMemo(() => new Map(fields.map((field) => [field.key, field])), [fields]);
  const warnings = new Map<string, string[]>();
  for (const { field, text } of completion.warnings) warnings.set(field, [...(warnings.get(field) ?? []), text]);
  return parts.map((part) => {
    if (part.part !== 'question') return <WordsPart key={part.id} part={part} about={about} />;
    const field = known.get(part.field);
    return field ? (
      <Fragment key={part.field}>
        <Question
          question={part}
          field={field}
          value={typedAt(part.field)}
          problems={problemsAt(part.field)}
          warnings={warnings.get(part.field) ?? NONE}
          change={change}
          leave={onBlur ? leave : null}
          prefix={prefix}
        />
        {under?.(part.field)}
      </Fragment>
    ) : null;
  });
}

const NONE: readonly string[] = [];

/** A part that asks nothing. */
function WordsPart({ part, about }: { part: Exclude<ShownPart, Asked>; about: string }) {
  switch (part.part) {
    case 'page':
      return null;
    case 'section':
      return (
        <div className="mt-9">
          <h2 className="border-b border-rule-strong pb-1">{part.title}</h2>
          {part.text ? <p className="mt-1.5 whitespace-pre-line text-soft">{part.text}</p> : null}
        </div>
      );
    case 'instruction':
      return (
        <div className="mt-5 border-l-2 border-green pl-3.5">
          <p className="whitespace-pre-line">
            <LiveText text={told(part.text)} />
          </p>
          {part.mail ? (
            <p className="mt-1">
              <a href={`mailto:${part.mail.to}?subject=${encodeURIComponent(about)}`}>
                {part.mail.label || say('desk:emailTo', { to: part.mail.to })}
              </a>
            </p>
          ) : null}
        </div>
      );
  }
}

interface QuestionProps {
  readonly question: Asked;
  readonly field: Field;
  readonly value: RawAnswer | undefined;
  readonly problems: readonly Problem[];
  readonly warnings: readonly string[];
  readonly prefix: string;
  /** These two stay the same ones. */
  readonly change: (field: string, value: RawAnswer) => void;
  readonly leave: ((field: string) => void) | null;
}

const Question = memo(function Question({ change, leave, ...asked }: QuestionProps) {
  const { key } = asked.field;
  return (
    <AskedQuestion
      {...asked}
      onChange={(value) => change(key, value)}
      {...(leave ? { onBlur: () => leave(key) } : {})}
    />
  );
}, isSame);
