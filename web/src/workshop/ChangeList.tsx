/** A change in words; one of a form says whether it reaches the register. */
interface Told {
  readonly at: string;
  readonly words: string;
  readonly before: string;
  readonly after: string;
  readonly reaches?: 'form' | 'register';
}

/**
 * What differs between two states of a form or a register: in a sentence, and side by side where both sides have
 * words.
 */
export function ChangeList({ changes }: { changes: readonly Told[] }) {
  return (
    <ul className="mt-1">
      {changes.map((change) => (
        <li key={change.at + change.words} className="border-b border-rule py-1.5">
          {change.words}
          {change.reaches === 'register' ? (
            <span className="ml-2 text-[12.5px] text-brass">reaches the register</span>
          ) : null}
          {change.before !== '' || change.after !== '' ? (
            <details className="text-[13px]">
              <summary className="text-green">side by side</summary>
              <div className="mt-1 grid grid-cols-2 gap-3">
                <p className="border-l-2 border-brick pl-2 break-words whitespace-pre-line">
                  {change.before || <span className="text-soft">nothing</span>}
                </p>
                <p className="border-l-2 border-green pl-2 break-words whitespace-pre-line">
                  {change.after || <span className="text-soft">nothing</span>}
                </p>
              </div>
            </details>
          ) : null}
        </li>
      ))}
    </ul>
  );
}
