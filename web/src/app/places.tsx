import type { RouteObject } from 'react-router';
import { Navigate } from 'react-router';
import { Ask } from '../front-desk/Ask.tsx';
import { FrontDesk } from '../front-desk/FrontDesk.tsx';
import { SignIn } from '../front-desk/SignIn.tsx';
import { Frame } from './Frame.tsx';
import { Stumble } from './Stumble.tsx';

/** Every page of the application. The Front desk comes at once; the other zones are loaded when somebody goes there. */
export const places: RouteObject[] = [
  {
    Component: Frame,
    ErrorBoundary: Stumble,
    HydrateFallback: () => null,
    children: [
      { index: true, Component: FrontDesk },
      { path: 'sign-in', Component: SignIn },
      { path: 'ask/:slug', Component: Ask },
      { path: 'confirm/:token', lazy: async () => ({ Component: (await import('../front-desk/Confirm.tsx')).Confirm }) },
      { path: 'follow/:token', lazy: async () => ({ Component: (await import('../front-desk/Follow.tsx')).Follow }) },
      { path: 'my/:number', lazy: async () => ({ Component: (await import('../front-desk/Follow.tsx')).MyRequest }) },
      { path: 'decide/:token', lazy: async () => ({ Component: (await import('../front-desk/DecideByLink.tsx')).DecideByLink }) },
      { path: 'floor', element: <Navigate to="/floor/arrived" replace /> },
      { path: 'floor/:tray/:number?', lazy: async () => ({ Component: (await import('../floor/Floor.tsx')).Floor }) },
      { path: 'workshop', lazy: async () => ({ Component: (await import('../workshop/Shelf.tsx')).Shelf }) },
      { path: 'workshop/:key/:page?', lazy: async () => ({ Component: (await import('../workshop/Binder.tsx')).Binder }) },
      { path: 'mailroom/:id?', lazy: async () => ({ Component: (await import('../mailroom/Mailroom.tsx')).Mailroom }) },
      { path: '*', Component: Stumble },
    ],
  },
];
