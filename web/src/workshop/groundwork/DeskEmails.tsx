import { CHOICES, type DeskHearing, type DeskWay, HEARD, WAYS } from '@tolvek/core/notice';
import { say } from '../../wire/words.ts';

/** How the desk sends emails to its staff while they have chosen nothing, and what they may choose. */
export function DeskEmails({ hears, set }: { hears: DeskHearing; set: (hears: DeskHearing) => void }) {
  return (
    <>
      <h2 className="section-head mt-8">{say('hearing:deskEmails')}</h2>
      <p className="mt-1 text-soft">{say('hearing:deskEmailsHint')}</p>
      <div className="mt-2 max-w-[44rem]">
        {HEARD.map((heard) => {
          const { way, choice } = hears[heard];
          const put = (change: Partial<DeskWay>): void => set({ ...hears, [heard]: { way, choice, ...change } });
          return (
            <div key={heard} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5">
              <span className="min-w-56 flex-1">{say(`hearing:${heard}`)}</span>
              <select
                aria-label={`${say('hearing:usually')}: ${say(`hearing:${heard}`)}`}
                className="input w-auto"
                value={way}
                onChange={({ target }) => put({ way: WAYS.find((each) => each === target.value) ?? way })}
              >
                {WAYS.map((each) => (
                  <option key={each} value={each}>
                    {say(`hearing:way.${each}`)}
                  </option>
                ))}
              </select>
              <select
                aria-label={`${say('hearing:mayChoose')}: ${say(`hearing:${heard}`)}`}
                className="input w-auto"
                value={choice}
                onChange={({ target }) => put({ choice: CHOICES.find((each) => each === target.value) ?? choice })}
              >
                {CHOICES.map((each) => (
                  <option key={each} value={each}>
                    {say(`hearing:choice.${each}`)}
                  </option>
                ))}
              </select>
            </div>
          );
        })}
      </div>
    </>
  );
}
