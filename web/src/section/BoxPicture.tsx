import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useModel } from '../api/queries/box';
import type { RawDesign } from '../schema/types';

interface Props {
  design: RawDesign;
  /** px. */
  width: number;
  height: number;
  /** What stands there until the picture is painted, and where there is no box. */
  otherwise: ReactNode;
}

/** How long a design is left alone before its picture is made, ms. */
const QUIET = 1200;

/** The box of a design, small: painted once nothing else is to be done, and again when the design has changed. */
export function BoxPicture({ design, width, height, otherwise }: Props) {
  const [settled, setSettled] = useState<RawDesign | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(design), QUIET);
    return () => clearTimeout(timer);
  }, [design]);
  const model = useModel(settled).data;
  const canvas = useRef<HTMLCanvasElement>(null);
  const [painted, setPainted] = useState(false);
  useEffect(() => {
    if (!model) {
      setPainted(false);
      return;
    }
    let live = true;
    void import('../scene/still')
      .then(({ paint }) => {
        if (live && canvas.current) setPainted(paint(model, canvas.current));
      })
      // With the server away the sign of its kind does.
      .catch(() => undefined);
    return () => {
      live = false;
    };
  }, [model]);
  const fine = Math.min(2, window.devicePixelRatio || 1);
  return (
    <span className="grid shrink-0 place-items-center" style={{ width, height }} aria-hidden="true">
      {!painted && otherwise}
      <canvas
        ref={canvas}
        width={width * fine}
        height={height * fine}
        style={{ width, height }}
        className={painted ? '' : 'hidden'}
      />
    </span>
  );
}
