import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';

interface PlacingProps {
  readonly finding: AnswerOf<'form'>['findings'][number];
  readonly formKey: string;
}

/** Gives the fields that a finding is about their place in the access plan, or leads to where more is decided of them. */
export function Placing({ finding: { place = [] }, formKey }: PlacingProps) {
  const [send, { isLoading, error }] = workshopApi.usePlaceFieldsMutation();
  const { data: form } = workshopApi.useFormQuery({ key: formKey });
  const [first] = place;
  if (first === undefined) return null;
  const labels = place.map((key) => form?.draft.fields.find((field) => field.key === key)?.label ?? key);
  return (
    <>
      <button
        type="button"
        className="text-green underline"
        disabled={isLoading}
        onClick={async () => {
          const done = await send({ key: formKey, body: { fields: [...place] } });
          if (!('error' in done)) toast(say('workshop:place.done', { fields: labels, count: labels.length }));
        }}
      >
        {say('workshop:place.usual')}
      </button>
      <Link to={`/workshop/${formKey}/access?field=${first}`}>{say('workshop:place.decide')}</Link>
      {error ? <Trouble error={error} /> : null}
    </>
  );
}
