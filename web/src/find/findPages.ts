import { type AnswerOf, trayKeys } from '@tolvek/contract';
import { isCalled, wordsOf } from '@tolvek/core/find';
import { say } from '../wire/words.ts';
import { GROUND, SETTINGS } from '../workshop/groundwork/places.ts';

export type Finder = NonNullable<AnswerOf<'me'>['person']>;

/** A page that can be gone to by its name. */
export interface Page {
  readonly to: string;
  readonly name: string;
  /** Where it is, when its name alone does not say so. */
  readonly in: string;
}

/** The pages and settings that somebody can go to. */
function pagesFor({ rights, worksWorkshop }: Finder): readonly Page[] {
  const floor = say('common:floor');
  const may = (right: string): boolean => rights.some((each) => each === right);
  const page = (to: string, name: string, where: string): Page => ({ to, name, in: where });
  return [
    ...trayKeys.map((tray) => page(`/floor/${tray}`, say(`floor:tray.${tray}`), floor)),
    page('/floor/views/new', say('views:new'), floor),
    page('/floor/duty', say('rosters:page'), floor),
    page('/floor/forecast', say('forecast:title'), floor),
    page('/floor/shared-results', say('floor:sharedResults'), floor),
    page('/', say('common:frontDesk'), ''),
    page('/account', say('common:account'), ''),
    ...(may('groundwork') ? [page('/floor/emails', say('incoming:tray'), floor)] : []),
    ...(worksWorkshop
      ? [
          page('/workshop', say('common:workshop'), ''),
          page('/workshop/new', say('workshop:newForm'), say('common:workshop')),
        ]
      : []),
    ...(may('groundwork')
      ? [
          ...GROUND.map(({ path, label }) => page(path, say(label), say('ground:groundwork'))),
          ...SETTINGS.map(({ to, label, in: place }) => page(to, say(label), say(place))),
        ]
      : []),
  ];
}

/** Pages that are told at once. */
const MOST = 8;

/** The pages that are called by all words of a text, or are in what is called so; those called so themselves first. */
export function pagesCalled(text: string, person: Finder): readonly Page[] {
  const typed = wordsOf(text);
  if (typed.length === 0) return [];
  const has = (name: string): boolean => isCalled(name, typed);
  const pages = pagesFor(person).filter((each) => has(`${each.name} ${each.in}`));
  return pages.sort((a, b) => Number(has(b.name)) - Number(has(a.name))).slice(0, MOST);
}
