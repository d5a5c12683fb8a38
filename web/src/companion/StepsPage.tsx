import { useEffect, useRef, useState } from 'react';
import { drying, lasting } from '../model/duration';
import type { Step } from '../schema/types';
import { useObserved } from '../ui/observed';
import { type Steps, type StepsState, standing } from './steps';

/** The steps of a build in large type, to be ticked with a thumb. */
export function StepsPage({ steps }: { steps: Steps }) {
  const state = useObserved(steps);
  const { page } = state;
  const [open, setOpen] = useState<string | null>(null);
  const next = page?.steps.find(({ id }) => standing(state, id) !== 'done');
  const shown = open ?? next?.id ?? null;
  const done = page?.steps.filter(({ id }) => standing(state, id) === 'done').length ?? 0;
  return (
    <main className="mx-auto max-w-2xl px-3 pb-16 text-[1.2rem] leading-snug">
      <header className="sticky top-0 z-10 border-line border-b bg-paper py-2">
        <h1 className="font-semibold text-[1.3rem]">{page ? page.build : 'Steps'}</h1>
        {page && (
          <p className="text-soft">
            {page.variant}: {done} of {page.steps.length} steps done
          </p>
        )}
        <p role="status" className={state.ended || state.away ? 'font-semibold text-short' : 'text-soft'}>
          {saying(state)}
        </p>
      </header>
      {page?.steps.map((step, at) => (
        <section key={step.id}>
          {step.phase !== page.steps[at - 1]?.phase && (
            <h2 className="mt-4 mb-1 font-semibold text-soft">{step.phase_name}</h2>
          )}
          <StepCard
            step={step}
            state={standing(state, step.id)}
            open={shown === step.id}
            steps={steps}
            names={names(state, step)}
            onOpen={() => setOpen(shown === step.id ? '' : step.id)}
          />
        </section>
      ))}
    </main>
  );
}

interface CardProps {
  step: Step;
  state: 'done' | 'failed' | null;
  open: boolean;
  steps: Steps;
  names: readonly [string, readonly string[]][];
  onOpen: () => void;
}

function StepCard({ step, state, open, steps, names, onOpen }: CardProps) {
  const card = useRef<HTMLDivElement>(null);
  // What opens after a tick is brought under the thumb; the first stays where it is.
  const before = useRef(open);
  useEffect(() => {
    if (open && !before.current) card.current?.scrollIntoView({ block: 'nearest' });
    before.current = open;
  }, [open]);
  return (
    <div ref={card} className="my-1 scroll-mt-32 rounded-md border border-line bg-card">
      <div className="flex items-center gap-3 p-2">
        <input
          type="checkbox"
          className="size-11 shrink-0"
          aria-label={`${step.title} done`}
          checked={state === 'done'}
          onChange={(event) => steps.tick(step.id, event.target.checked, new Date())}
        />
        <button
          type="button"
          aria-expanded={open}
          className={`min-h-12 flex-1 text-left font-medium ${state === 'done' ? 'text-soft line-through' : ''}`}
          onClick={onOpen}
        >
          {step.title}
          {state === 'failed' && <span className="text-short"> – its check failed</span>}
        </button>
        <span className="whitespace-nowrap text-[1rem] text-soft">{lasting(step.minutes)}</span>
      </div>
      {open && (
        <div className="flex flex-col gap-2 border-line border-t p-3">
          <p>{step.how}</p>
          {step.why && <p className="text-soft">{step.why}</p>}
          {step.caution && (
            <p className="border-short border-l-4 pl-2">
              <b>Caution.</b> {step.caution}
            </p>
          )}
          <p>
            <b>Check:</b> {step.check}
          </p>
          {step.wait && (
            <p>
              <b>Then wait:</b> {step.wait[0]}, {drying(step.wait[1] as number)}
            </p>
          )}
          {names.map(([name, all]) => (
            <p key={name} className="text-[1.05rem]">
              <b>{name}:</b> {all.join('; ')}
            </p>
          ))}
        </div>
      )}
    </div>
  );
}

function names({ page }: StepsState, step: Step): [string, readonly string[]][] {
  const parts = step.parts.map((id) => String(page?.parts.find(([one]) => one === id)?.[1] ?? id));
  const boards = step.panels.map((number) => {
    const name = page?.boards.find(([one]) => one === number)?.[1];
    return `${number}${name ? ` ${name}` : ''}`;
  });
  const clamps = step.clamps
    ? [`${step.clamps[0]} clamps, opening ${Math.round((step.clamps[1] as number) * 1e3)} mm`]
    : [];
  const all: [string, readonly string[]][] = [
    ['Parts', parts],
    ['Boards', boards],
    ['Tools', [...step.tools, ...clamps]],
  ];
  return all.filter(([, list]) => list.length > 0);
}

function saying({ page, waiting, away, ended }: StepsState): string {
  if (ended) return ended;
  const many = `${waiting.length} ${waiting.length === 1 ? 'tick waits' : 'ticks wait'} here`;
  if (away) return waiting.length ? `No connection: ${many}.` : 'No connection. What you tick is kept here.';
  if (!page) return 'Opening …';
  return waiting.length ? 'Saving …' : 'Saved';
}
