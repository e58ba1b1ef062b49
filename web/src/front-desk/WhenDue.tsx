import { Rich } from '../ui/Rich.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';

/** Until when something is due, behind what else is said of it; nothing where it is not. */
export const WhenDue = ({ due, late }: { readonly due: string | null; readonly late: boolean }) =>
  due === null ? null : (
    <>
      {' · '}
      <span className={late ? 'text-brick' : ''}>
        <Rich text={late ? 'desk:wasDue' : 'desk:isDue'} filled={{ moment: <DeskMoment at={due} /> }} />
      </span>
    </>
  );
