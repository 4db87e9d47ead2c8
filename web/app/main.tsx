import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App.tsx';
import { fetchParts } from './ProjectPage.tsx';

// The plan and the stage asked for come while the page itself is being made.
const [, first, , stage = 'works'] = window.location.pathname.split('/');
if (first === '' || first === 'p') fetchParts(stage);

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
