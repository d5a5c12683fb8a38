import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { StepsPage } from './StepsPage';
import { type Ask, Steps } from './steps';
import '../styles.css';

const ask: Ask = async (path, body) => {
  const sent =
    body === undefined
      ? {}
      : { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) };
  try {
    const answer = await fetch(path, { ...sent, credentials: 'same-origin', cache: 'no-store' });
    const text = await answer.text();
    return { ok: answer.ok, status: answer.status, json: text ? JSON.parse(text) : null };
  } catch {
    return null;
  }
};

const dark = window.matchMedia('(prefers-color-scheme: dark)');
const applyTheme = () => document.documentElement.setAttribute('data-theme', dark.matches ? 'dark' : 'light');
dark.addEventListener('change', applyTheme);
applyTheme();

const steps = new Steps(ask, localStorage);
const token = /^#[0-9a-f]{32}$/.test(location.hash) ? location.hash.slice(1) : null;
// A link opens once: what it was opened with is of no more use to anybody.
history.replaceState(null, '', '/');
void steps.open(token);
window.addEventListener('online', () => steps.retry());
document.addEventListener('visibilitychange', () => {
  if (!document.hidden) void steps.read();
});

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <StepsPage steps={steps} />
    </StrictMode>,
  );
}
