import type { ReactNode } from 'react';
import { Link } from 'react-router';

/** One thing that waits for whoever looks: what it is, what is known of it, and the step. */
export const Waits = ({
  title,
  children,
  to,
  step,
  named,
}: {
  title: string;
  children: ReactNode;
  to: string;
  /** What the link says, and what it says out of its place. */
  step: string;
  named: string;
}) => (
  <li className="my-2 grid grid-cols-[1fr_auto] items-center gap-3 border-b border-l-[3px] border-b-rule border-l-brass-mark py-2.5 pl-3">
    <span>
      <span className="subject block text-[17px]">{title}</span>
      {children}
    </span>
    <Link to={to} aria-label={named}>
      {step}
    </Link>
  </li>
);
