import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { ErrorBoundary } from 'react-error-boundary';
import { Provider } from 'react-redux';
import { BrowserRouter } from 'react-router';
import './index.css';
import { Places } from './app/places.tsx';
import { Stumble } from './app/Stumble.tsx';
import { store } from './app/store.ts';
import { holdPresses } from './ui/heldPress.ts';
import { loadWords } from './wire/words.ts';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no place for the application.');
const place = root;
holdPresses(document);

/** Nothing is said before its words are there. */
void loadWords('front').then(() =>
  createRoot(place).render(
    <StrictMode>
      <Provider store={store}>
        <ErrorBoundary FallbackComponent={Stumble}>
          <BrowserRouter>
            <Places />
          </BrowserRouter>
        </ErrorBoundary>
      </Provider>
    </StrictMode>,
  ),
);
