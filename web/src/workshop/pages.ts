import type { Finding } from '@tolvek/core/form';
import type { Key } from '@tolvek/words';
import type { ComponentType } from 'react';
import { AccessPage } from './AccessPage.tsx';
import { DoorsPage } from './DoorsPage.tsx';
import { OutsidePage } from './doors/OutsidePage.tsx';
import { EditionsPage } from './editions/EditionsPage.tsx';
import { WhoGets } from './editions/WhoGets.tsx';
import { InOutPage } from './InOutPage.tsx';
import { LanguagesPage } from './languages/LanguagesPage.tsx';
import { MailingsPage } from './mailings/MailingsPage.tsx';
import { NoticeShown } from './notices/NoticeShown.tsx';
import { NoticesPage } from './notices/NoticesPage.tsx';
import { QuestionsPage } from './QuestionsPage.tsx';
import { RulesPage } from './RulesPage.tsx';
import { RoutingPage } from './routing/RoutingPage.tsx';
import { TimePage } from './TimePage.tsx';

/** A page of the binder: it takes no props, and asks `useBinder` for what it shows. */
interface BinderPage {
  /** Its place in the address. */
  readonly key: string;
  readonly label: Key;
  readonly Page: ComponentType;
  /** What is found on it: findings lead to it by that. */
  readonly tells?: Finding['page'];
  /** Nobody routes or decides a thing, and nothing about it is due. */
  readonly ofRequests?: true;
  /** Stands at the right, in turn with the proof, and what it is called there. */
  readonly Beside?: ComponentType;
  readonly beside?: Key;
  /** The page it is reached from, where it stands in the contents under that one. */
  readonly under?: string;
  /** Takes more room than the proof beside it. */
  readonly wide?: true;
}

/** The pages of a form’s binder, in the order of work. */
export const PAGES: readonly BinderPage[] = [
  { key: 'questions', label: 'pages:questions', Page: QuestionsPage, tells: 'questions' },
  { key: 'rules', label: 'pages:rules', Page: RulesPage, tells: 'rules' },
  {
    ...{ key: 'editions', label: 'pages:editions', Page: EditionsPage, tells: 'editions' },
    ...{ Beside: WhoGets, beside: 'editions:whoGets' },
  },
  { key: 'access', label: 'pages:access', Page: AccessPage, wide: true },
  { key: 'routing', label: 'pages:routing', Page: RoutingPage, tells: 'routing', ofRequests: true, wide: true },
  { key: 'approval', label: 'pages:approval', Page: TimePage, tells: 'approval', ofRequests: true },
  {
    ...{ key: 'notices', label: 'pages:notices', Page: NoticesPage, tells: 'notices' },
    ...{ Beside: NoticeShown, beside: 'notices:shownTitle' },
  },
  { key: 'doors', label: 'pages:doors', Page: DoorsPage },
  { key: 'outside', label: 'outside:title', Page: OutsidePage, under: 'doors' },
  { key: 'mailings', label: 'pages:mailings', Page: MailingsPage },
  { key: 'languages', label: 'pages:languages', Page: LanguagesPage, tells: 'languages' },
  { key: 'sheets', label: 'pages:inOut', Page: InOutPage },
];
