import type { DesignFinding } from '@tolvek/core/design';
import { told } from '../../wire/words.ts';

/** What is wrong or doubtful at one place of a roster. */
export const Wrong = ({ findings, at }: { findings: readonly DesignFinding[]; at: string }) => (
  <>
    {findings
      .filter((each) => each.at === at)
      .map(({ message, severity }) => (
        <span
          key={told(message)}
          className={`mt-1 block text-[13px] ${severity === 'error' ? 'text-brick' : 'text-brass'}`}
        >
          {told(message)}
        </span>
      ))}
  </>
);
