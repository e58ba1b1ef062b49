/** The mark before a stage: a shape for its phase, so that nothing is told by colour alone. */
export function StageMark({
  phase,
  role,
}: {
  phase: 'arrived' | 'working' | 'paused' | 'finished';
  role: string | null;
}) {
  const base = 'mr-[7px] inline-block size-[9px] flex-none';
  if (role === 'deciding') return <i aria-hidden="true" className={`${base} rotate-45 border-[1.5px] border-soft`} />;
  if (role === 'refused') return <i aria-hidden="true" className={`${base} border-b-[2px] border-soft`} />;
  switch (phase) {
    case 'arrived':
      return <i aria-hidden="true" className={`${base} rounded-full border-[1.5px] border-soft`} />;
    case 'working':
      return (
        <i
          aria-hidden="true"
          className={`${base} rounded-full border-[1.5px] border-soft`}
          style={{ background: 'linear-gradient(90deg, var(--ink-soft) 50%, transparent 50%)' }}
        />
      );
    case 'paused':
      return <i aria-hidden="true" className={`${base} border-x-[3px] border-soft`} />;
    case 'finished':
      return <i aria-hidden="true" className={`${base} rounded-full bg-soft`} />;
  }
}
