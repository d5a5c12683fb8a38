import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import type { ModelReport } from '../../api/types';
import { Stage } from './stage3d';

interface Props {
  model: ModelReport;
  selected: string;
  onSelect: (part: string) => void;
}

const TURN = 0.15;

/** The box to be turned round, its boards cut away as far as one likes. */
export default function ModelView({ model, selected, onSelect }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const stage = useRef<Stage | null>(null);
  const choose = useRef(onSelect);
  choose.current = onSelect;
  const [cut, setCut] = useState(50);
  const [failed, setFailed] = useState(false);

  useEffect(() => {
    const place = holder.current;
    if (!place) return undefined;
    try {
      const made = new Stage(place, (part) => choose.current(part));
      stage.current = made;
      return () => {
        stage.current = null;
        made.close();
      };
    } catch {
      // No drawing in three dimensions here.
      setFailed(true);
      return undefined;
    }
  }, []);
  useEffect(() => stage.current?.show(model), [model]);
  useEffect(() => stage.current?.cutAt(cut / 100), [cut]);
  useEffect(() => stage.current?.mark(selected), [selected]);

  function onKeyDown(event: KeyboardEvent) {
    const moves: Record<string, [number, number, number]> = {
      ArrowLeft: [-TURN, 0, 1],
      ArrowRight: [TURN, 0, 1],
      ArrowUp: [0, -TURN, 1],
      ArrowDown: [0, TURN, 1],
      '+': [0, 0, 0.9],
      '-': [0, 0, 1.1],
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    stage.current?.turn(...move);
  }

  if (failed) {
    return (
      <p className="p-6 text-center">This browser cannot draw in 3-D; the other views show the same parts.</p>
    );
  }
  return (
    <div className="flex h-full min-h-64 flex-col gap-1">
      <div
        ref={holder}
        role="img"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is turned with the keys
        tabIndex={0}
        aria-label="The box in three dimensions. Arrow keys turn it, plus and minus bring it nearer and farther."
        className="min-h-0 flex-1 cursor-grab overflow-hidden rounded-[3px]"
        onKeyDown={onKeyDown}
      />
      <label className="flex items-center gap-3 text-[13px]">
        <span className="whitespace-nowrap">Cut away from the left</span>
        <input
          type="range"
          min={0}
          max={100}
          value={cut}
          className="w-full accent-oak"
          aria-valuetext={`${cut} % of the width`}
          onChange={(event) => setCut(Number(event.target.value))}
        />
      </label>
    </div>
  );
}
