import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';

/** Everything wrong or doubtful in the draft, along the bottom; each with a way there. */
export function Findings({ findings, formKey }: { findings: AnswerOf<'form'>['findings']; formKey: string }) {
  const errors = findings.filter((finding) => finding.severity === 'error');
  const cautions = findings.filter((finding) => finding.severity === 'caution');
  const first = findings[0];
  return (
    <section aria-label="Findings" className="border-t border-rule-strong bg-sheet px-5">
      {first ? (
        <details>
          <summary className="flex h-[38px] items-center gap-5">
            {errors.length > 0 ? <span className="font-semibold text-brick">{errors.length === 1 ? '1 error' : `${errors.length} errors`}</span> : null}
            {cautions.length > 0 ? <span className="font-semibold text-brass">{cautions.length === 1 ? '1 caution' : `${cautions.length} cautions`}</span> : null}
            <span className="truncate">{first.message}</span>
          </summary>
          <ul className="max-h-48 overflow-auto pb-3">
            {findings.map((finding) => (
              <li key={finding.at + finding.message} className="flex gap-4 border-t border-rule py-1.5">
                <span className={`w-16 font-semibold ${finding.severity === 'error' ? 'text-brick' : 'text-brass'}`}>{finding.severity}</span>
                <span className="flex-1">{finding.message}</span>
                <Link to={`/workshop/${formKey}/${finding.page}#at-${finding.at}`}>Go there</Link>
              </li>
            ))}
          </ul>
        </details>
      ) : (
        <p className="flex h-[38px] items-center text-soft">Nothing wrong or doubtful was found in this draft.</p>
      )}
    </section>
  );
}
