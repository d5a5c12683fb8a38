import { type KeyboardEvent, useRef, useState } from 'react';
import { type Axis, BoxScene, type SceneHandle } from '../../scene/BoxScene';
import { scaleFigureFor } from '../../scene/scale_figure';
import type { ModelReport } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { save } from '../../ui/download';
import { Icon } from '../../ui/Icon';

interface Props {
  model: ModelReport;
  name: string;
  selected: string;
  onSelect: (part: string) => void;
}

const TURN = 0.15;

const AXES: readonly (readonly [Axis, string])[] = [
  ['x', 'from the left'],
  ['y', 'from the top'],
  ['z', 'from the front'],
];

function drawable(): boolean {
  try {
    return document.createElement('canvas').getContext('webgl2') !== null;
  } catch {
    return false;
  }
}

/** The box to be turned round, cut open, drawn apart and taken along as a picture. */
export default function ModelView({ model, name, selected, onSelect }: Props) {
  const handle = useRef<SceneHandle | null>(null);
  const [axis, setAxis] = useState<Axis>('x');
  const [share, setShare] = useState(0);
  const [exploded, setExploded] = useState(0);
  const [scale, setScale] = useState(true);
  const [pointed, setPointed] = useState<string | null>(null);
  const [able] = useState(drawable);
  const [cut, setCut] = useState({ axis, share: 0 });
  if (cut.axis !== axis || cut.share !== share / 100) setCut({ axis, share: share / 100 });

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
    handle.current?.turn(...move);
  }

  if (!able) {
    return (
      <p className="p-6 text-center">This browser cannot draw in 3-D; the other views show the same parts.</p>
    );
  }
  const beside = scaleFigureFor((model.bounds[1]?.[1] ?? 0) - (model.bounds[0]?.[1] ?? 0));
  return (
    <div className="flex h-full min-h-64 flex-col gap-1.5">
      <div
        role="img"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is turned with the keys
        tabIndex={0}
        aria-label="The box in three dimensions. Arrow keys rotate the view, plus and minus bring it nearer and farther."
        className="relative min-h-0 flex-1 cursor-grab overflow-hidden rounded-[3px]"
        onKeyDown={onKeyDown}
      >
        <BoxScene
          model={model}
          selected={selected}
          cut={cut}
          exploded={exploded / 100}
          scale={scale}
          handle={handle}
          onSelect={onSelect}
          onPoint={setPointed}
        />
        {pointed && (
          <span className="pointer-events-none absolute top-2 left-2 rounded-[3px] bg-paper/85 px-1.5 text-[0.929rem] first-letter:uppercase">
            {pointed}
          </span>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[0.929rem]">
        <span className="flex items-center gap-2">
          Cut open
          <Choice label="Cut open" value={axis} options={AXES} onChange={setAxis} />
          <Slider
            label={`Cut away ${AXES.find(([id]) => id === axis)?.[1]}`}
            value={share}
            onChange={setShare}
          />
        </span>
        <span className="flex items-center gap-2">
          Exploded
          <Slider label="Exploded" value={exploded} onChange={setExploded} />
        </span>
        <label className="flex items-center gap-1.5">
          <input type="checkbox" checked={scale} onChange={(event) => setScale(event.target.checked)} />
          Beside {beside.name}
        </label>
        <Button
          className="ml-auto"
          onClick={() => void handle.current?.picture().then((blob) => blob && save(`${name}.png`, blob))}
        >
          <Icon name="out" /> Save picture
        </Button>
      </div>
    </div>
  );
}

interface SliderProps {
  label: string;
  value: number;
  onChange: (value: number) => void;
}

function Slider({ label, value, onChange }: SliderProps) {
  return (
    <input
      type="range"
      aria-label={label}
      aria-valuetext={`${value} %`}
      min={0}
      max={100}
      value={value}
      className="w-32 accent-oak"
      onChange={(event) => onChange(Number(event.target.value))}
    />
  );
}
