import { editionOf, type FormDesign, partKey, partName } from '@tolvek/core/form';
import { useState } from 'react';
import { say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';

/** How an edition has a part, in a few words; empty where it is not there. */
function hasIt(form: FormDesign, key: string): string {
  const part = form.parts.find((each) => partKey(each) === key);
  if (!part) return '';
  if (part.part === 'instruction') return part.text;
  if (part.part !== 'question') return [part.title, part.text].filter(Boolean).join('. ');
  const field = form.fields.find((each) => each.key === part.field);
  const isLocked = form.rules.some(
    (rule) => rule.id === 'edition-locks' && rule.then.some((each) => 'fields' in each && each.fields.includes(key)),
  );
  const options = field?.type.kind === 'choice' || field?.type.kind === 'choices' ? field.type.options : [];
  const isCut = options.some((option) => option.retired);
  return [
    part.asks || field?.label || key,
    ...(part.help ? [part.help] : []),
    ...(part.required ? [say('editions:isRequired')] : []),
    ...(isLocked ? [say('editions:shown.lock')] : []),
    ...(isCut ? [options.flatMap((option) => (option.retired ? [] : [option.label])).join(', ')] : []),
  ].join(' · ');
}

/** All keys once: in the order of the first, what only the second has after what it follows there. */
function besideEachOther(one: readonly string[], other: readonly string[]): readonly string[] {
  const keys = [...one];
  for (const [place, key] of other.entries())
    if (!keys.includes(key)) keys.splice(place === 0 ? 0 : keys.indexOf(other[place - 1] ?? '') + 1, 0, key);
  return keys;
}

/** Two editions side by side, part by part in the order of the first. */
export function Compared() {
  const { draft } = useBinder().editing;
  const editions = draft.editions ?? [];
  const [[left, right], setSides] = useState<readonly [string, string]>(['', editions[0]?.id ?? '']);
  const of = (id: string): FormDesign => {
    const edition = editions.find((each) => each.id === id);
    return edition ? editionOf(draft, edition) : draft;
  };
  const [a, b] = [of(left), of(right)];
  const keys = besideEachOther(a.parts.map(partKey), b.parts.map(partKey));
  const nameFrom = (key: string): string => partName(a.parts.some((part) => partKey(part) === key) ? a : b, key);
  const pick = (at: 0 | 1): React.ReactNode => (
    <select
      className="input w-full"
      aria-label={say(at === 0 ? 'editions:leftSide' : 'editions:rightSide')}
      value={at === 0 ? left : right}
      onChange={({ target: { value } }) => setSides(at === 0 ? [value, right] : [left, value])}
    >
      <option value="">{say('editions:plain')}</option>
      {editions.map((edition) => (
        <option key={edition.id} value={edition.id}>
          {edition.name || say('editions:unnamed')}
        </option>
      ))}
    </select>
  );
  return (
    <section aria-labelledby="compared" className="mt-8">
      <h2 id="compared" className="section-head">
        {say('editions:sideBySide')}
      </h2>
      <table className="mt-2 w-full table-fixed border-collapse text-[14px]">
        <thead>
          <tr>
            <th className="w-1/2 pr-3 pb-2 text-left">{pick(0)}</th>
            <th className="w-1/2 pb-2 text-left">{pick(1)}</th>
          </tr>
        </thead>
        <tbody>
          {keys.map((key) => {
            const [one, other] = [hasIt(a, key), hasIt(b, key)];
            const differs = one !== other;
            return (
              <tr key={key} className="align-top">
                {[one, other].map((words, at) => (
                  <td
                    // biome-ignore lint/suspicious/noArrayIndexKey: there are two sides, and they stay.
                    key={at}
                    className={`border-b border-rule py-1.5 pr-3 break-words ${differs ? 'border-l-[3px] border-l-brass pl-2' : 'pl-2.5 text-soft'}`}
                  >
                    {words || <span className="text-brick">{say('editions:notThere', { name: nameFrom(key) })}</span>}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
