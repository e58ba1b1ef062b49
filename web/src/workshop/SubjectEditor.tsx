import type { Field } from '@tolvek/core/register';
import { X } from 'lucide-react';
import { say } from '../wire/words.ts';
import { AddField } from './AddField.tsx';
import { piecesOf, subjectOf, withFieldAtEnd, withoutField } from './subject.ts';

/** What a request is called in lists: fields by their labels, with words between them. */
export function SubjectEditor({
  subject,
  fields,
  change,
}: {
  subject: string;
  fields: readonly Field[];
  change: (subject: string) => void;
}) {
  const { first, rest } = piecesOf(subject);
  const labelOf = (key: string): string =>
    fields.find((field) => field.key === key)?.label ?? say('workshop:lostField', { key });
  const free = fields.filter((field) => !rest.some((each) => each.field === field.key));
  return (
    <fieldset className="flex flex-wrap items-center gap-1 rounded-[3px] border border-edge bg-sheet px-1.5 py-1">
      <legend className="sr-only">{say('workshop:nameInLists')}</legend>
      <Words
        name={rest[0] ? say('workshop:wordsBefore', { label: labelOf(rest[0].field) }) : say('workshop:wordsAlone')}
        text={first}
        set={(words) => change(subjectOf({ first: words, rest }))}
      />
      {rest.map(({ field, after }, at) => (
        // A field may stand here more than once: its place is what tells one from the other.
        // biome-ignore lint/suspicious/noArrayIndexKey: see above
        <span key={`${field} ${at}`} className="flex items-center gap-1">
          <span className="inline-flex items-center gap-1 rounded-[3px] bg-green-wash px-1.5 py-0.5 text-ink">
            {labelOf(field)}
            <button
              type="button"
              className="text-soft hover:text-brick"
              aria-label={say('workshop:leaveOutField', { field: labelOf(field) })}
              onClick={() => change(withoutField(subject, at))}
            >
              <X aria-hidden size={13} />
            </button>
          </span>
          <Words
            name={say('workshop:wordsAfter', { label: labelOf(field) })}
            text={after}
            set={(words) =>
              change(
                subjectOf({ first, rest: rest.map((each, place) => (place === at ? { field, after: words } : each)) }),
              )
            }
          />
        </span>
      ))}
      <AddField
        name={say('workshop:addToName')}
        prompt={say('workshop:addFieldMore')}
        fields={free}
        className="ml-auto border-0 bg-transparent py-0.5 text-green"
        add={(key) => change(withFieldAtEnd(subject, key))}
      />
    </fieldset>
  );
}

/** Words between fields: as wide as they are, and never so narrow that they can’t be pressed. */
function Words({ name, text, set }: { name: string; text: string; set: (text: string) => void }) {
  return (
    <input
      aria-label={name}
      className="min-w-6 border-0 border-b border-dotted border-rule-strong bg-transparent px-0.5 py-0.5 text-ink"
      style={{ width: `${Math.max(2, text.length + 1)}ch` }}
      value={text}
      // A brace begins a field, which is picked and not typed.
      onChange={(event) => set(event.target.value.replace(/[{}]/g, ''))}
    />
  );
}
