import { useDeferredValue, useEffect, useRef, useState } from 'react';
import { useMotion } from '../../api/queries/design';
import { cursor } from '../../model/lane_view';
import { noteAt } from '../../model/notes';
import { inWords } from '../../model/preferences';
import type { BodyReport, Motion, RawDesign, Report } from '../../schema/types';
import { Section } from '../../section/Section';
import type { Target } from '../../section/scene';
import { Button } from '../../ui/Button';
import { takeLostFocus } from '../../ui/focus';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { useObserved } from '../../ui/observed';

/** Slow motion at the cursor: what moves, and whether it plays. */
function useSlowMotion(design: RawDesign) {
  const { frequency } = useObserved(cursor);
  const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
  const [playing, setPlaying] = useState(!still);
  const [moment, setMoment] = useState(0);
  const at = useDeferredValue(Math.round(frequency * 10) / 10);
  const asked = useMotion(useDeferredValue(design), at);
  return { motion: asked.data, error: asked.error, playing, setPlaying, moment, setMoment };
}

type State = ReturnType<typeof useSlowMotion>;

interface Props {
  design: RawDesign;
  report: Report;
  body: BodyReport | null | undefined;
  onTarget: (target: Target, part: Element) => void;
  onPull: (design: RawDesign) => void;
  onCommit: (label: string) => void;
  onClose: () => void;
}

/** The drawing with cone and air moving, and what is to be seen. */
export function SlowMotion({ onClose, ...drawn }: Props) {
  const state = useSlowMotion(drawn.design);
  const slowly = state.motion && {
    motion: state.motion,
    playing: state.playing,
    moment: state.moment,
    onMoment: state.setMoment,
  };
  const holder = useRef<HTMLDivElement>(null);
  // The button that had the focus is gone with the other picture.
  useEffect(() => takeLostFocus(holder.current, '[data-slow]'), []);
  return (
    <div ref={holder} className="flex h-full min-h-0 flex-col gap-2">
      <div className="min-h-0 flex-1">
        <Section {...drawn} slowly={slowly ?? null} />
      </div>
      <SlowMotionWords state={state} report={drawn.report} onClose={onClose} />
    </div>
  );
}

/** Where it is worth looking at a cabinet that resonates, as parts of its tuning. */
const PLACES = [
  [0.6, 'Below the tuning'],
  [1, 'At the tuning'],
  [2, 'Well above'],
] as const;

interface WordsProps extends Pick<Props, 'report' | 'onClose'> {
  state: State;
}

/** What is to be seen, in words, and the clockwork. */
function SlowMotionWords({ state, report, onClose }: WordsProps) {
  const { motion, error, playing, setPlaying, moment, setMoment } = state;
  const fb = report.figures.fb;
  return (
    <section
      aria-label="Slow motion"
      className="shrink-0 rounded-[3px] border border-line bg-card px-2.5 py-1.5"
    >
      <div className="flex flex-wrap items-center gap-2">
        <b>Slow motion{motion ? ` at ${motion.frequency.toFixed(1)} Hz ${noteAt(motion.frequency)}` : ''}</b>
        <Button data-slow="" onClick={() => setPlaying(!playing)}>
          <Icon name={playing ? 'pause' : 'play'} /> {playing ? 'Stop' : 'Play'}
        </Button>
        {!playing && (
          <label className="flex items-center gap-1.5">
            Moment
            <input
              type="range"
              min={0}
              max={350}
              step={10}
              value={moment % 360}
              aria-valuetext={`${moment % 360} degrees of the cycle`}
              onChange={(event) => setMoment(Number(event.target.value))}
            />
          </label>
        )}
        <span className="flex-1" />
        <Button look="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
      <Message error={error} />
      {motion && <Words motion={motion} />}
      {fb && (
        <p className="mt-1 flex flex-wrap items-center gap-1.5">
          <span className="text-soft">Look</span>
          {PLACES.map(([times, name]) => (
            <Button key={name} onClick={() => cursor.move(fb * times)}>
              {name}
            </Button>
          ))}
        </p>
      )}
      <details className="mt-1">
        <summary className="text-soft">Why an opening helps</summary>
        <p>
          The air in a port, a line’s mouth or a radiator is a weight on the spring of the air in the box. At
          the tuning it swings by itself: a small push of the cone is enough, and it moves far while the cone
          hardly does. Below the tuning the air follows the cone like a leak: what the cone pushes out in
          front the opening draws in, both cancel, and nothing holds the cone. Far above it is too heavy to
          follow, and only the cone sounds.
        </p>
      </details>
    </section>
  );
}

function Words({ motion }: { motion: Motion }) {
  return motion.words.map((words) => <p key={words}>{inWords(words)}</p>);
}
