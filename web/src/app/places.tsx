import { type ComponentType, lazy } from 'react';
import { Navigate, Route, Routes } from 'react-router';
import { Ask } from '../front-desk/Ask.tsx';
import { FrontDesk } from '../front-desk/FrontDesk.tsx';
import { Frame } from './Frame.tsx';
import { Nowhere } from './Stumble.tsx';

/** A page that is loaded when somebody goes there. */
const later = <Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) =>
  lazy(async () => ({ default: (await load())[name] }));

const SignIn = later(() => import('../front-desk/SignIn.tsx'), 'SignIn');
const Confirm = later(() => import('../front-desk/Confirm.tsx'), 'Confirm');
const Follow = later(() => import('../front-desk/Follow.tsx'), 'Follow');
const MyRequest = later(() => import('../front-desk/Follow.tsx'), 'MyRequest');
const DecideByLink = later(() => import('../front-desk/DecideByLink.tsx'), 'DecideByLink');
const Floor = later(() => import('../floor/Floor.tsx'), 'Floor');
const Shelf = later(() => import('../workshop/Shelf.tsx'), 'Shelf');
const NewForm = later(() => import('../workshop/NewForm.tsx'), 'NewForm');
const Binder = later(() => import('../workshop/Binder.tsx'), 'Binder');
const RegisterPage = later(() => import('../workshop/RegisterPage.tsx'), 'RegisterPage');
const Vocabularies = later(() => import('../workshop/Vocabularies.tsx'), 'Vocabularies');
const Mailroom = later(() => import('../mailroom/Mailroom.tsx'), 'Mailroom');

/**
 * Every page of the application. Asking comes at once; the other zones are loaded when somebody
 * goes there.
 */
export const Places = () => (
  <Routes>
    <Route Component={Frame}>
      <Route index Component={FrontDesk} />
      <Route path="sign-in" Component={SignIn} />
      <Route path="ask/:slug" Component={Ask} />
      <Route path="confirm/:token" Component={Confirm} />
      <Route path="follow/:token" Component={Follow} />
      <Route path="my/:number" Component={MyRequest} />
      <Route path="decide/:token" Component={DecideByLink} />
      <Route path="floor" element={<Navigate to="/floor/arrived" replace />} />
      <Route path="floor/:tray/:number?" Component={Floor} />
      <Route path="workshop" Component={Shelf} />
      <Route path="workshop/new" Component={NewForm} />
      <Route path="workshop/vocabularies/:vocabulary?" Component={Vocabularies} />
      <Route path="workshop/registers/:register" Component={RegisterPage} />
      <Route path="workshop/:key/:page?" Component={Binder} />
      <Route path="mailroom/:id?" Component={Mailroom} />
      <Route path="*" Component={Nowhere} />
    </Route>
  </Routes>
);
