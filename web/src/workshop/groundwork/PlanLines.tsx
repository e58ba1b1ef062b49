interface PlanLinesProps {
  readonly lines: readonly string[];
  /** What is said where it comes to nothing. */
  readonly none?: string;
  readonly className?: string;
}

/** What something would come to, line by line; said anew when it becomes another. */
export const PlanLines = ({ lines, none, className = 'mt-3' }: PlanLinesProps) => (
  <ul className={className} aria-live="polite">
    {lines.map((line) => (
      <li key={line} className="border-b border-rule py-1.5">
        {line}
      </li>
    ))}
    {none && lines.length === 0 ? <li className="py-1.5 text-soft">{none}</li> : null}
  </ul>
);
