import type { Consent } from '@tolvek/core/door';
import { say } from '../wire/words.ts';
import { LiveText } from './LiveText.tsx';

/** What was agreed to when a request was sent: its version, and the text on demand. */
export const Agreed = ({ consent }: { consent: Consent | null }) =>
  consent ? (
    <details className="mt-2">
      <summary className="text-soft">{say('common:agreedTo', { number: consent.version })}</summary>
      <p className="mt-1 border-l-2 border-rule-strong pl-3.5 whitespace-pre-line">
        <LiveText text={consent.text} />
      </p>
    </details>
  ) : null;
