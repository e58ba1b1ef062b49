import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';

/** Which field of profiles has the number that text messages go to; none are sent where none is chosen. */
export function DeskTexts({ texts, set }: { texts: string | undefined; set: (texts: string | undefined) => void }) {
  const { data } = groundApi.useProfileQuery();
  const fields = (data?.fields ?? []).filter(({ type, retired }) => type.kind === 'phone' && !retired);
  return (
    <div className="mt-4 max-w-[34rem]">
      <label htmlFor="desk texts" className="block font-semibold">
        {say('settings:theTexts')}
      </label>
      <p id="desk texts hint" className="text-soft">
        {say('settings:textsHint')}
      </p>
      <select
        id="desk texts"
        aria-describedby="desk texts hint"
        className="input mt-1.5"
        value={texts ?? ''}
        onChange={({ target }) => set(target.value || undefined)}
      >
        <option value="">{say('settings:noTexts')}</option>
        {fields.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
    </div>
  );
}
