import type { AskedQuestion as Asked, Completion, ShownPart } from '@tolvek/core/form';
import type { Field, Problem, RawAnswer } from '@tolvek/core/register';
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
  /**
   * In a letter begun from an instruction: the request’s number, or the form’s title before there
   * is one.
   */
  readonly about: string;
}

/** The parts of a form in their order: sections, words, questions. */
export function FormParts(props: FormPartsProps) {
  return props.parts.map((part) => <FormPart key={partKey(part)} part={part} {...props} />);
}

function FormPart({ part, parts: _, about, ...rest }: FormPartsProps & { part: ShownPart }) {
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
          <p className="whitespace-pre-line">{part.text}</p>
          {part.mail ? (
            <p className="mt-1">
              <a href={`mailto:${part.mail.to}?subject=${encodeURIComponent(about)}`}>
                {part.mail.label || `Write to ${part.mail.to}`}
              </a>
            </p>
          ) : null}
        </div>
      );
    case 'question':
      return <Question part={part} {...rest} onBlur={rest.onBlur} />;
  }
}

/** A part’s own name, without the engine that the rules bring. */
const partKey = (part: ShownPart): string => (part.part === 'question' ? part.field : part.id);

type QuestionProps = Omit<FormPartsProps, 'parts' | 'about' | 'onBlur'> & {
  part: Asked;
  onBlur: FormPartsProps['onBlur'] | undefined;
};

function Question({
  part,
  fields,
  completion,
  typedAt,
  problemsAt,
  onChange,
  onBlur,
  prefix = 'answer',
}: QuestionProps) {
  const field = fields.find((each) => each.key === part.field);
  if (!field) return null;
  return (
    <AskedQuestion
      prefix={prefix}
      question={part}
      field={field}
      value={typedAt(field.key)}
      problems={problemsAt(field.key)}
      warnings={completion.warnings.filter((said) => said.field === field.key).map((said) => said.text)}
      onChange={(value) => onChange(field.key, value)}
      {...(onBlur ? { onBlur: () => onBlur(field.key) } : {})}
    />
  );
}
