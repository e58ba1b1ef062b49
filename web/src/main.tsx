import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { createBrowserRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import './index.css';
import { places } from './app/places.tsx';
import { store } from './app/store.ts';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no place for the application.');
createRoot(root).render(
  <StrictMode>
    <Provider store={store}>
      <RouterProvider router={createBrowserRouter(places)} />
    </Provider>
  </StrictMode>,
);
