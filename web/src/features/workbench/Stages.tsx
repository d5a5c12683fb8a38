import { memo } from 'react';
import { NavLink } from 'react-router';

export type Stage = 'curves' | 'box';

const STAGES = [
  ['curves', 'Curves', ''],
  ['box', 'Box', '/box'],
] as const;

export function isStage(name: string): name is Stage {
  return STAGES.some(([id]) => id === name);
}

/** What of the build is worked on. */
export const Stages = memo(function Stages({ build, stage }: { build: string; stage: Stage }) {
  return (
    <nav
      aria-label="Stages"
      className="rule-ticks flex shrink-0 overflow-hidden rounded-[3px] border border-rule-line bg-rule"
    >
      {STAGES.map(([id, name, address]) => (
        <NavLink
          key={id}
          to={`/builds/${build}${address}`}
          aria-current={id === stage ? 'page' : undefined}
          className={`border-rule-line border-r px-3 py-1 font-medium last:border-r-0 hover:bg-card focus-visible:outline-offset-[-2px] ${id === stage ? 'bg-oak text-on-oak hover:bg-oak' : ''}`}
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
});
