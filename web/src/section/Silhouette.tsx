import type { RawDesign } from '../api/types';

/** Front of the cabinet, small. */
export function Silhouette({ design }: { design: RawDesign }) {
  const ported = design.enclosure.family === 'ported';
  const slot = design.enclosure.ports?.[0]?.shape === 'slot';
  return (
    <svg width="46" height="42" viewBox="0 0 46 42" aria-hidden="true" className="shrink-0">
      <rect x="1" y="1" width="44" height="40" fill="var(--rule)" stroke="var(--rule-line)" />
      <circle cx="23" cy={ported ? 16 : 21} r="11" fill="var(--card)" stroke="var(--ink)" />
      {ported && slot && <rect x="6" y="32.5" width="34" height="4.5" fill="var(--ink)" />}
      {ported && !slot && <circle cx="23" cy="34" r="4.5" fill="var(--ink)" />}
    </svg>
  );
}
