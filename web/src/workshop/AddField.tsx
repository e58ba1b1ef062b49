import type { Field } from '@tolvek/core/register';

/** Fields to add one of, by their labels; nothing where none is left. */
export function AddField({
  name,
  prompt,
  fields,
  add,
  className,
}: {
  name: string;
  prompt: string;
  fields: readonly Field[];
  add: (key: string) => void;
  className: string;
}) {
  if (fields.length === 0) return null;
  return (
    <select aria-label={name} className={className} value="" onChange={(event) => add(event.target.value)}>
      <option value="">{prompt}</option>
      {fields.map((field) => (
        <option key={field.key} value={field.key}>
          {field.label}
        </option>
      ))}
    </select>
  );
}
