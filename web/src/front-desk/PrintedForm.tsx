import type { AskedQuestion, Completion, ShownPart } from '@tolvek/core/form';
import {
  type Field,
  type FieldValue,
  type ItemRow,
  type Kind,
  type NameOf,
  namesAround,
  type RequestFacts,
  sayValue,
} from '@tolvek/core/register';
import { LinesTable } from '../fields/LinesTable.tsx';
import { say, told } from '../wire/words.ts';

interface PrintedFormProps {
  readonly fields: readonly Field[];
  readonly intro: string;
  readonly completion: Pick<Completion, 'parts' | 'values'>;
  readonly facts: RequestFacts;
}

/**
 * The whole form on paper, all pages of it: answers as words, and room to write where there is none
 * yet.
 */
export default function PrintedForm({ fields, intro, completion, facts }: PrintedFormProps) {
  const nameOf = namesAround(facts);
  return (
    <div className="text-[11pt]">
      {intro ? <p className="mt-1 whitespace-pre-line text-soft">{intro}</p> : null}
      {completion.parts.map((part) => (
        <PrintedPart
          key={part.part === 'question' ? part.field : part.id}
          part={part}
          fields={fields}
          values={completion.values}
          nameOf={nameOf}
        />
      ))}
    </div>
  );
}

function PrintedPart({
  part,
  fields,
  values,
  nameOf,
}: {
  part: ShownPart;
  fields: readonly Field[];
  values: Completion['values'];
  nameOf: NameOf;
}) {
  if (part.part === 'page' || part.part === 'section')
    return (
      <div className="mt-5 break-after-avoid">
        <h2 className="border-b border-rule-strong">{part.title}</h2>
        {part.text ? <p className="whitespace-pre-line text-soft">{part.text}</p> : null}
      </div>
    );
  if (part.part === 'instruction')
    return <p className="mt-3 border-l-2 border-rule-strong pl-3 whitespace-pre-line">{told(part.text)}</p>;
  const field = fields.find((each) => each.key === part.field);
  return field ? <PrintedQuestion part={part} field={field} value={values[field.key]} nameOf={nameOf} /> : null;
}

function PrintedQuestion({
  part,
  field,
  value,
  nameOf,
}: {
  part: AskedQuestion;
  field: Field;
  value: FieldValue | undefined;
  nameOf: NameOf;
}) {
  return (
    <div className="mt-3 break-inside-avoid">
      <p className="font-semibold">
        {part.asks || field.label}{' '}
        {part.required ? '' : <span className="font-normal text-soft">{say('desk:optional')}</span>}
      </p>
      {value === undefined ? (
        <>
          {part.help ? <p className="text-[10pt] text-soft">{part.help}</p> : null}
          <RoomToWrite type={field.type} />
        </>
      ) : field.type.kind === 'line-items' ? (
        <LinesTable type={field.type} rows={value as readonly ItemRow[]} nameOf={nameOf} />
      ) : (
        <p className="whitespace-pre-line">{told(sayValue(field, value, nameOf))}</p>
      )}
    </div>
  );
}

/** Boxes to tick where something is chosen, lines to write on elsewhere. */
function RoomToWrite({ type }: { type: Kind }) {
  const picks =
    type.kind === 'yes-no'
      ? [say('common:yes'), say('common:no')]
      : type.kind === 'choice' || type.kind === 'choices'
        ? [
            ...type.options.filter((option) => !option.retired).map((option) => option.label),
            ...(type.other ? [say('desk:printedOther')] : []),
          ]
        : type.kind === 'level'
          ? type.levels.filter((level) => !level.retired).map((level) => level.label)
          : [];
  if (picks.length > 0)
    return (
      <ul className="mt-0.5 flex flex-wrap gap-x-5">
        {picks.map((pick) => (
          <li key={pick}>
            <span aria-hidden="true" className="mr-1.5 inline-block size-[0.8em] border border-ink" />
            {pick}
          </li>
        ))}
      </ul>
    );
  if (type.kind === 'line-items')
    return (
      <table className="mt-1 w-full border-collapse">
        <thead>
          <tr>
            {type.columns.map((column) => (
              <th
                key={column.key}
                scope="col"
                className="border border-rule-strong px-1.5 text-left text-[10pt] font-normal"
              >
                {column.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {['a', 'b', 'c', 'd'].map((row) => (
            <tr key={row} className="h-7">
              {type.columns.map((column) => (
                <td key={column.key} className="border border-rule-strong" />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    );
  return <div className={`border-b border-ink ${type.kind === 'long-text' ? 'h-20' : 'h-7'}`} />;
}
