import { memo, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Window } from '../../actions/action';
import { addressOf, type Progress, useStages, type Work } from './stages';

interface Props {
  build: string;
  /** The one that is open. */
  stage: string;
  work: Work;
  onOpen: (window: Window) => void;
}

const MARK: Record<Progress, string> = { untouched: '○', 'in progress': '◐', done: '●' };
const ITEM =
  'flex items-center gap-1.5 border-rule-line border-r px-2.5 py-1 font-medium max-[1400px]:gap-[3px] max-[1400px]:px-[5px] max-[1400px]:text-[0.929rem] last:border-r-0 hover:bg-card focus-visible:outline-offset-[-2px]';

/** The order of the work: each stage untouched, in hand or done, and what is best done next. */
export const StageBar = memo(function StageBar({ build, stage, work, onOpen }: Props) {
  const stages = useStages();
  const next = stages.find((one) => one.progress(work) !== 'done');
  return (
    <nav
      aria-label="Stages"
      className="rule-ticks flex shrink-0 overflow-hidden rounded-[3px] max-md:shrink max-md:flex-wrap border border-rule-line bg-rule"
    >
      {stages.map((one) => {
        const progress = one.progress(work);
        const todo = one === next ? `Next: ${one.next(work)}.` : '';
        const title = `${one.name}: ${progress}. ${todo}`.trim();
        const inside = (
          <>
            <span aria-hidden="true" className="text-[0.786rem]">
              {MARK[progress]}
            </span>
            <span className={todo ? 'underline decoration-2 underline-offset-4' : ''}>{one.name}</span>
            <span className="sr-only">, {progress}</span>
          </>
        );
        return 'window' in one.opens ? (
          <Opener key={one.id} title={title} window={one.opens.window} onOpen={onOpen}>
            {inside}
          </Opener>
        ) : (
          <Link
            key={one.id}
            to={addressOf(one, build)}
            title={title}
            aria-current={one.id === stage ? 'page' : undefined}
            className={`${ITEM} ${one.id === stage ? 'bg-oak text-on-oak hover:bg-oak' : ''}`}
          >
            {inside}
          </Link>
        );
      })}
    </nav>
  );
});

interface OpenerProps {
  window: Window;
  title: string;
  onOpen: (window: Window) => void;
  children: ReactNode;
}

function Opener({ window, title, onOpen, children }: OpenerProps) {
  return (
    <button type="button" className={ITEM} title={title} onClick={() => onOpen(window)}>
      {children}
    </button>
  );
}
