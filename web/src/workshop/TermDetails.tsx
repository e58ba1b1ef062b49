import { type Kind, termsInOrder, type Vocabulary } from '@tolvek/core/register';
import { Link } from 'react-router';
import { say } from '../wire/words.ts';
import { LimitInput, without } from './LimitInput.tsx';

type TermKind = Extract<Kind, { kind: 'term' | 'terms' }>;

/** Which vocabulary a field takes its terms from, and which part of it. */
export function TermDetails({
  id,
  type,
  vocabularies,
  set,
}: {
  id: string;
  type: TermKind;
  vocabularies: readonly Vocabulary[];
  set: (type: TermKind) => void;
}) {
  const vocabulary = vocabularies.find((each) => each.key === type.vocabulary);
  const tops = vocabulary
    ? termsInOrder(vocabulary).filter(({ term }) => vocabulary.terms.some((each) => each.under === term.key))
    : [];
  return (
    <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <select
        id={id}
        aria-label={say('workshop:vocabulary')}
        className="input w-auto"
        value={vocabulary ? type.vocabulary : ''}
        onChange={(event) => set(without({ ...type, vocabulary: event.target.value, under: undefined }) as TermKind)}
      >
        <option value="">{say('workshop:chooseVocabulary')}</option>
        {vocabularies.map((each) => (
          <option key={each.key} value={each.key}>
            {say('workshop:vocabularyTerms', { name: each.name, n: each.terms.length })}
          </option>
        ))}
      </select>
      {tops.length > 0 ? (
        <label className="flex items-center gap-2">
          {say('workshop:onlyUnder')}
          <select
            className="input w-auto"
            value={type.under ?? ''}
            onChange={(event) => set(without({ ...type, under: event.target.value || undefined }) as TermKind)}
          >
            <option value="">{say('workshop:anything')}</option>
            {tops.map(({ term, depth }) => (
              <option key={term.key} value={term.key}>
                {'\u2003'.repeat(depth)}
                {term.label}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {type.kind === 'terms' ? (
        <LimitInput
          label={say('workshop:atMost')}
          width="w-16"
          value={type.most}
          set={(most) => set(without({ ...type, most }) as TermKind)}
        />
      ) : null}
      <Link
        to={vocabulary ? `/workshop/groundwork/vocabularies/${vocabulary.key}` : '/workshop/groundwork/vocabularies'}
      >
        {vocabulary ? say('workshop:openTerms') : say('workshop:allVocabularies')}
      </Link>
    </span>
  );
}
