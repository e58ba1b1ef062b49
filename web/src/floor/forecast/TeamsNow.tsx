import type { AnswerOf } from '@tolvek/contract';
import { say } from '../../wire/words.ts';
import { paceIn } from './pace.ts';

/** How the teams do: what is open, who is there, and how fast they have been of late. */
export function TeamsNow({ teams }: { teams: AnswerOf<'forecast'>['teams'] }) {
  return (
    <section aria-labelledby="teams-now">
      <h2 id="teams-now" className="section-head">
        {say('forecast:teams')}
      </h2>
      <table className="mt-1 w-full text-[13.5px]">
        <thead>
          <tr className="text-left text-[12.5px] text-soft">
            <th className="py-1 font-normal">{say('forecast:team')}</th>
            <th className="py-1 text-right font-normal">{say('forecast:open')}</th>
            <th className="py-1 pl-4 font-normal">{say('forecast:here')}</th>
            <th className="py-1 pl-4 font-normal">{say('forecast:pace')}</th>
          </tr>
        </thead>
        <tbody>
          {teams.map((team) => {
            const pace = paceIn(team);
            return (
              <tr key={team.key} className="border-t border-rule">
                <td className="py-1.5">{team.name}</td>
                <td className="py-1.5 text-right tabular-nums">{team.open}</td>
                <td className={`py-1.5 pl-4 ${team.here === 0 ? 'text-brick' : ''}`}>
                  {say('forecast:hereOf', { here: team.here, members: team.members })}
                </td>
                <td className={`py-1.5 pl-4 ${pace === 'muchSlower' ? 'text-brick' : 'text-soft'}`}>
                  {say(`forecast:${pace}`)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
