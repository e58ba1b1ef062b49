import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';

interface AddressLineProps {
  /** Of the input, for its label. */
  readonly id: string;
  readonly address: string;
  readonly set: (address: string) => void;
  readonly button: string;
  readonly send: () => void;
  readonly isSending: boolean;
  /** What came of the last try, where it failed. */
  readonly error: unknown;
}

/** An email address, and the button that sends an email there. It may stand inside of a form: it sends by itself. */
export function AddressLine({ id, address, set, button, send, isSending, error }: AddressLineProps) {
  const problem = error ? problemOf(error) : null;
  const wrong = `${id}-problem`;
  return (
    <>
      <span className="mt-1.5 flex flex-wrap gap-2">
        <input
          id={id}
          className="input max-w-80 min-w-56 flex-1"
          type="email"
          autoComplete="email"
          value={address}
          aria-invalid={problem !== null}
          aria-describedby={problem ? wrong : undefined}
          onChange={(event) => set(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            send();
          }}
        />
        <Button disabled={isSending} onClick={send}>
          {isSending ? say('desk:sending') : button}
        </Button>
      </span>
      {problem?.problems ? (
        <p id={wrong} role="alert" className="mt-1.5 font-semibold text-brick">
          <span aria-hidden="true">▲ </span>
          {problem.problems.map((each) => `${told(each.message)} ${told(each.fix)}`).join(' ')}
        </p>
      ) : problem ? (
        <div id={wrong} className="mt-3">
          <Trouble error={error} />
        </div>
      ) : null}
    </>
  );
}
