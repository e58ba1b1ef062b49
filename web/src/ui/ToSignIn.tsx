import { useState } from 'react';
import { Navigate } from 'react-router';

/**
 * Leads whoever is not signed in to the sign-in page, and from there back to where they were: as it was when they
 * came, since the address is another one already while the next page is loaded.
 */
export function ToSignIn() {
  const [here] = useState(() => `${location.pathname}${location.search}`);
  return <Navigate to={`/sign-in?back=${encodeURIComponent(here)}`} replace />;
}
