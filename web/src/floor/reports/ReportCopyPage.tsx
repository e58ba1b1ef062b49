import { Link, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say } from '../../wire/words.ts';
import { FloorFrame } from '../FloorFrame.tsx';
import { daysSaid } from './daysSaid.ts';
import { reportsApi } from './endpoints.ts';
import { ReportPartTold } from './ReportParts.tsx';

/** A frozen copy of a report. */
export function ReportCopyPage() {
  const { id = '', copy = '' } = useParams();
  const navigate = useNavigate();
  const { data, error, refetch } = reportsApi.useReportCopyQuery({ id, copy }, { refetchOnMountOrArgChange: true });
  const { data: report } = reportsApi.useReportQuery({ id });
  const [remove] = reportsApi.useRemoveReportCopyMutation();
  const takeAway = async (): Promise<void> => {
    const done = await remove({ id, copy, body: { removed: true } });
    if ('error' in done) {
      toast.error(refusalInWords(problemOf(done.error)));
      return;
    }
    navigate(`/floor/reports/${id}`);
    toast(say('reports:copyRemoved'), {
      action: { label: say('reports:putBack'), onClick: () => void remove({ id, copy, body: { removed: false } }) },
    });
  };
  return (
    <FloorFrame title={data ? `${data.name}: ${daysSaid(data)}` : ''} error={error} again={refetch}>
      {data ? (
        <>
          <p className="mt-1 max-w-[72ch] text-soft">
            {say('reports:frozenAt', { at: Date.parse(data.frozenAt), name: data.by })}{' '}
            <Link
              to={`/floor/reports/${id}?from=${data.from}&to=${data.to}`}
              className="whitespace-nowrap print:hidden"
            >
              {say('reports:toNow')}
            </Link>
          </p>
          <p className="mt-2 flex gap-5 text-[13px] print:hidden">
            <button type="button" className="min-h-[24px] text-green underline" onClick={() => print()}>
              {say('reports:print')}
            </button>
            {report?.copies.some((each) => each.id === copy && each.mayRemove) ? (
              <button type="button" className="min-h-[24px] text-green underline" onClick={() => void takeAway()}>
                {say('reports:removeCopy')}
              </button>
            ) : null}
          </p>
          {data.parts.map((part, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a part is known by its place
            <section key={at} className="mt-8 break-inside-avoid">
              {part.title === '' ? null : <h2 className="mb-2 text-[20px]">{part.title}</h2>}
              <ReportPartTold part={part} rowsOf={null} toTimes={null} />
            </section>
          ))}
        </>
      ) : null}
    </FloorFrame>
  );
}
