import { type ComponentType, lazy } from 'react';
import { Navigate, Route, Routes, useParams } from 'react-router';
import { Ask } from '../front-desk/Ask.tsx';
import { FrontDesk } from '../front-desk/FrontDesk.tsx';
import { loadWords, useLanguage } from '../wire/words.ts';
import { Bare, Frame } from './Frame.tsx';
import { Nowhere } from './Stumble.tsx';

/** A page that says itself again when the language changes. */
const spoken = (Page: ComponentType): ComponentType =>
  function Spoken() {
    useLanguage();
    return <Page />;
  };

/** A page that is loaded, with its words, when somebody goes there. */
const later = <Name extends string>(
  load: () => Promise<Record<Name, ComponentType>>,
  name: Name,
  words: 'front' | 'floor' | 'workshop' | 'start' = 'front',
) =>
  lazy(async () => {
    const [pages] = await Promise.all([load(), loadWords(words)]);
    return { default: spoken(pages[name]) };
  });

const Desk = spoken(FrontDesk);
const Asking = spoken(Ask);
const SignIn = later(() => import('../start/SignIn.tsx'), 'SignIn', 'start');
const Confirm = later(() => import('../front-desk/Confirm.tsx'), 'Confirm');
const SentPage = later(() => import('../front-desk/Sent.tsx'), 'SentPage');
const Follow = later(() => import('../front-desk/Follow.tsx'), 'Follow');
const MyRequest = later(() => import('../front-desk/Follow.tsx'), 'MyRequest');
const Given = later(() => import('../front-desk/Given.tsx'), 'Given');
const SharedPage = later(() => import('../front-desk/SharedPage.tsx'), 'SharedPage');
const SharedByLink = later(() => import('../front-desk/SharedPage.tsx'), 'SharedByLink');
const SharedResults = later(() => import('../floor/SharedResults.tsx'), 'SharedResults', 'workshop');
const AcceptByLink = later(() => import('../front-desk/AcceptByLink.tsx'), 'AcceptByLink');
const DecideByLink = later(() => import('../front-desk/DecideByLink.tsx'), 'DecideByLink');
const TimesPage = later(() => import('../floor/times/TimesPage.tsx'), 'TimesPage', 'floor');
const ForecastPage = later(() => import('../floor/forecast/ForecastPage.tsx'), 'ForecastPage', 'floor');
/** What a view is built with is said as in the Workshop. */
const viewPages = async () => (await Promise.all([import('../floor/views/ViewPage.tsx'), loadWords('workshop')]))[0];
const ViewPage = later(viewPages, 'ViewPage', 'floor');
const reportPages = async () =>
  (await Promise.all([import('../floor/reports/ReportPage.tsx'), loadWords('workshop')]))[0];
const ReportPage = later(reportPages, 'ReportPage', 'floor');
const ReportCopyPage = later(() => import('../floor/reports/ReportCopyPage.tsx'), 'ReportCopyPage', 'floor');
const Floor = later(() => import('../floor/Floor.tsx'), 'Floor', 'floor');
const Shelf = later(() => import('../workshop/Shelf.tsx'), 'Shelf', 'workshop');
const NewForm = later(() => import('../workshop/NewForm.tsx'), 'NewForm', 'workshop');
const Binder = later(() => import('../workshop/Binder.tsx'), 'Binder', 'workshop');
const RegisterPage = later(() => import('../workshop/RegisterPage.tsx'), 'RegisterPage', 'workshop');
const Vocabularies = later(() => import('../workshop/Vocabularies.tsx'), 'Vocabularies', 'workshop');
const Groundwork = later(() => import('../workshop/groundwork/Groundwork.tsx'), 'Groundwork', 'workshop');
const Overview = later(() => import('../workshop/groundwork/Overview.tsx'), 'Overview', 'workshop');
const DeskPage = later(() => import('../workshop/groundwork/DeskPage.tsx'), 'DeskPage', 'workshop');
const PeoplePage = later(() => import('../workshop/groundwork/PeoplePage.tsx'), 'PeoplePage', 'workshop');
const ContactsPage = later(() => import('../workshop/groundwork/PeoplePage.tsx'), 'ContactsPage', 'workshop');
const ImportPage = later(() => import('../workshop/groundwork/ImportPage.tsx'), 'ImportPage', 'workshop');
const ProfilePage = later(() => import('../workshop/groundwork/ProfilePage.tsx'), 'ProfilePage', 'workshop');
const GroupsPage = later(() => import('../workshop/groundwork/GroupsPage.tsx'), 'GroupsPage', 'workshop');
const DirectoryPage = later(() => import('../workshop/groundwork/DirectoryPage.tsx'), 'DirectoryPage', 'workshop');
const SignInPage = later(() => import('../workshop/groundwork/SignInPage.tsx'), 'SignInPage', 'workshop');
const EmailsPage = later(() => import('../workshop/groundwork/EmailsPage.tsx'), 'EmailsPage', 'workshop');
const SkillsPage = later(() => import('../workshop/groundwork/SkillsPage.tsx'), 'SkillsPage', 'workshop');
const RightsPage = later(() => import('../workshop/groundwork/RightsPage.tsx'), 'RightsPage', 'workshop');
const ProgramsPage = later(() => import('../workshop/programs/ProgramsPage.tsx'), 'ProgramsPage', 'workshop');
const RostersPage = later(() => import('../workshop/rosters/RostersPage.tsx'), 'RostersPage', 'workshop');
const DutyPage = later(() => import('../floor/duty/DutyPage.tsx'), 'DutyPage', 'floor');
const CalendarsPage = later(() => import('../workshop/groundwork/CalendarsPage.tsx'), 'CalendarsPage', 'workshop');
const RegistersPage = later(() => import('../workshop/groundwork/RegistersPage.tsx'), 'RegistersPage', 'workshop');
const FirstStart = later(() => import('../start/FirstStart.tsx'), 'FirstStart', 'start');
const Forgot = later(() => import('../start/Forgot.tsx'), 'Forgot', 'start');
const Account = later(() => import('../start/Account.tsx'), 'Account', 'start');
const ComeIn = later(() => import('../start/ComeIn.tsx'), 'ComeIn', 'start');
const ComeInByLink = later(() => import('../start/ComeIn.tsx'), 'ComeInByLink', 'start');
const Welcome = later(() => import('../start/Welcome.tsx'), 'Welcome', 'start');
const IncomingEmails = later(() => import('../floor/IncomingEmails.tsx'), 'IncomingEmails', 'floor');
const Mailroom = later(() => import('../mailroom/Mailroom.tsx'), 'Mailroom', 'floor');

/** Where vocabularies stood before: links to them lead on. */
function ToVocabularies() {
  const { vocabulary = '' } = useParams();
  return <Navigate to={`/workshop/groundwork/vocabularies/${vocabulary}`} replace />;
}

/**
 * Every page of the application. Asking comes at once; the other zones are loaded when somebody
 * goes there.
 */
export const Places = () => (
  <Routes>
    <Route Component={Bare}>
      <Route path="embed/:slug" Component={Asking} />
    </Route>
    <Route Component={Frame}>
      <Route index Component={Desk} />
      <Route path="sign-in" Component={SignIn} />
      <Route path="ask/:slug" Component={Asking} />
      <Route path="confirm/:token" Component={Confirm} />
      <Route path="sent/:token" Component={SentPage} />
      <Route path="follow/:token" Component={Follow} />
      <Route path="my/:number" Component={MyRequest} />
      <Route path="given/:number" Component={Given} />
      <Route path="decide/:token" Component={DecideByLink} />
      <Route path="accept/:token" Component={AcceptByLink} />
      <Route path="shared/link/:token" Component={SharedByLink} />
      <Route path="shared/:id" Component={SharedPage} />
      <Route path="start/:token" Component={FirstStart} />
      <Route path="forgot" Component={Forgot} />
      <Route path="account" Component={Account} />
      <Route path="come-in" Component={ComeIn} />
      <Route path="come-in/:token" Component={ComeInByLink} />
      <Route path="welcome/:token" Component={Welcome} />
      <Route path="floor" element={<Navigate to="/floor/arrived" replace />} />
      <Route path="floor/shared-results" Component={SharedResults} />
      <Route path="floor/emails/:id?" Component={IncomingEmails} />
      <Route path="floor/duty" Component={DutyPage} />
      <Route path="floor/times" Component={TimesPage} />
      <Route path="floor/forecast" Component={ForecastPage} />
      <Route path="floor/views/:id/:number?" Component={ViewPage} />
      <Route path="floor/reports/:id" Component={ReportPage} />
      <Route path="floor/reports/:id/copies/:copy" Component={ReportCopyPage} />
      <Route path="floor/:tray/:number?" Component={Floor} />
      <Route path="workshop" Component={Shelf} />
      <Route path="workshop/new" Component={NewForm} />
      <Route path="workshop/vocabularies/:vocabulary?" Component={ToVocabularies} />
      <Route path="workshop/groundwork" Component={Groundwork}>
        <Route index Component={Overview} />
        <Route path="desk" Component={DeskPage} />
        <Route path="people/:id?" Component={PeoplePage} />
        <Route path="import/:kind" Component={ImportPage} />
        <Route path="profiles" Component={ProfilePage} />
        <Route path="contacts/:id?" Component={ContactsPage} />
        <Route path="groups/:group?" Component={GroupsPage} />
        <Route path="directory" Component={DirectoryPage} />
        <Route path="skills" Component={SkillsPage} />
        <Route path="emails" Component={EmailsPage} />
        <Route path="rights" Component={RightsPage} />
        <Route path="sign-in" Component={SignInPage} />
        <Route path="calendars/:calendar?" Component={CalendarsPage} />
        <Route path="rosters/:roster?" Component={RostersPage} />
        <Route path="programs/:program?" Component={ProgramsPage} />
        <Route path="registers" Component={RegistersPage} />
        <Route path="vocabularies/:vocabulary?" Component={Vocabularies} />
      </Route>
      <Route path="workshop/registers/:register" Component={RegisterPage} />
      <Route path="workshop/:key/:page?" Component={Binder} />
      <Route path="mailroom/:id?" Component={Mailroom} />
      <Route path="*" Component={Nowhere} />
    </Route>
  </Routes>
);
