import type { AnswerOf } from '@tolvek/contract';

type Team = AnswerOf<'forecast'>['teams'][number];

/** How fast a team has been of late, in a word: by how many requests it took up and finished, beside how many are usual. */
export function paceIn({ takes, finishes }: Pick<Team, 'takes' | 'finishes'>) {
  const usually = takes.usually + finishes.usually;
  const is = usually > 0 ? (takes.is * takes.usually + finishes.is * finishes.usually) / usually : 1;
  if (is < 0.5) return 'muchSlower';
  if (is < 0.8) return 'slower';
  return is > 1.25 ? 'faster' : 'asUsual';
}
