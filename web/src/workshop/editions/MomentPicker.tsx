import { ASKING } from '@tolvek/core/form';
import { RELATION_WORDS } from '@tolvek/core/people';
import { say } from '../../wire/words.ts';
import { RELATIONS } from '../access/planEdits.ts';
import { useBinder } from '../binder.ts';

/** When somebody has a form: while they ask, or at a stage of a request, there with how they stand to it. */
export function MomentPicker({
  look,
  when,
  asWhom,
  stage,
  setStage,
  as,
  setAs,
}: {
  look: string;
  /** What the two are called. */
  when: string;
  asWhom: string;
  stage: string;
  setStage: (stage: string) => void;
  as: string;
  setAs: (as: string) => void;
}) {
  const { form } = useBinder();
  return (
    <>
      <select className={look} aria-label={when} value={stage} onChange={({ target: { value } }) => setStage(value)}>
        <option value={ASKING}>{say('editions:whileAsking')}</option>
        {form.stages.map(({ key, label }) => (
          <option key={key} value={key}>
            {say('editions:readingAt', { stage: label })}
          </option>
        ))}
      </select>
      {stage === ASKING ? null : (
        <select className={look} aria-label={asWhom} value={as} onChange={({ target: { value } }) => setAs(value)}>
          <option value="">{say('editions:asNothing')}</option>
          <option value="requester">{say('editions:asRequester')}</option>
          {RELATIONS.map((word) => (
            <option key={word} value={word.slice(1)}>
              {say('editions:asRelation', { relation: RELATION_WORDS[word] })}
            </option>
          ))}
        </select>
      )}
    </>
  );
}
