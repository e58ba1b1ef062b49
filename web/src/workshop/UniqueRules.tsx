import { partName } from '@tolvek/core/form';
import { say } from '../wire/words.ts';
import { AddField } from './AddField.tsx';
import type { Editing } from './editing.ts';
import { freshId } from './edits.ts';

/** Kinds whose values can be told to be the same. */
const COMPARABLE: ReadonlySet<string> = new Set([
  'text',
  'number',
  'money',
  'date',
  'date-time',
  'choice',
  'level',
  'email',
  'phone',
  'link',
  'person',
]);

/** Answers that no two requests may share. */
export function UniqueRules({ editing: { draft, change } }: { editing: Editing }) {
  const fields = draft.fields.filter((field) => COMPARABLE.has(field.type.kind) && field.source !== 'computed');
  const first = fields[0];
  if (!first) return null;
  return (
    <>
      <div className="section-head mt-6 flex items-end justify-between">
        <h2 className="font-sans text-[12px] font-semibold">{say('workshop:noDuplicates')}</h2>
        <button
          type="button"
          className="text-green underline"
          onClick={() =>
            change((before) => ({
              ...before,
              unique: [
                ...before.unique,
                {
                  id: freshId(
                    'unique',
                    before.unique.map((rule) => rule.id),
                  ),
                  fields: [first.key],
                  among: 'all',
                },
              ],
            }))
          }
        >
          {say('workshop:addDuplicateCheck')}
        </button>
      </div>
      {draft.unique.length === 0 ? <p className="py-2 text-soft">{say('workshop:duplicateHint')}</p> : null}
      {draft.unique.map((rule) => {
        const set = (next: Partial<typeof rule>): void =>
          change((before) => ({
            ...before,
            unique: before.unique.map((each) => (each.id === rule.id ? { ...each, ...next } : each)),
          }));
        const free = fields.filter((field) => !rule.fields.includes(field.key));
        return (
          <div
            key={rule.id}
            id={`at-${rule.id}`}
            className="flex flex-wrap items-center gap-2 border-b border-rule py-2"
          >
            {rule.fields.map((key, index) => (
              <span key={key} className="flex items-center gap-2">
                {index > 0 ? <span className="text-soft">{say('workshop:togetherWith')}</span> : null}
                <b className="font-semibold">{partName(draft, key)}</b>
                {rule.fields.length > 1 ? (
                  <button
                    type="button"
                    className="text-brick"
                    aria-label={say('workshop:leaveOutField', { field: partName(draft, key) })}
                    onClick={() => set({ fields: rule.fields.filter((each) => each !== key) })}
                  >
                    ✕
                  </button>
                ) : null}
              </span>
            ))}
            {rule.fields.length === 1 ? (
              <select
                aria-label={say('workshop:whichAnswer')}
                className="input w-auto"
                value={rule.fields[0]}
                onChange={(event) => set({ fields: [event.target.value] })}
              >
                {fields.map((field) => (
                  <option key={field.key} value={field.key}>
                    {field.label}
                  </option>
                ))}
              </select>
            ) : null}
            <AddField
              name={say('workshop:togetherName')}
              prompt={say('workshop:and')}
              fields={free}
              className="input w-auto"
              add={(key) => set({ fields: [...rule.fields, key] })}
            />
            <select
              aria-label={say('workshop:amongWhich')}
              className="input w-auto"
              value={rule.among}
              onChange={(event) => set({ among: event.target.value === 'all' ? 'all' : 'unfinished' })}
            >
              <option value="all">{say('workshop:amongAll')}</option>
              <option value="unfinished">{say('workshop:amongUnfinished')}</option>
            </select>
            <button
              type="button"
              className="ml-auto text-brick underline"
              onClick={() =>
                change((before) => ({ ...before, unique: before.unique.filter((each) => each.id !== rule.id) }))
              }
            >
              {say('workshop:removeCheck')}
            </button>
          </div>
        );
      })}
    </>
  );
}
