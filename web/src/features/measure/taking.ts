// A measurement with the measuring box that is under way.

import { useEffect, useRef, useState } from 'react';
import { sweepRig } from '../../api/queries/measure';
import type { MeasurePlanStep, ReadMeasurement, Typed } from '../../schema/types';

export interface Taking {
  /** Which step is swept; null where none is. */
  step: MeasurePlanStep | null;
  /** What share is done. */
  share: number;
  error: unknown;
  /** Whose error that is. */
  failed: MeasurePlanStep | null;
  begin: (step: MeasurePlanStep, mass: Typed | null, onFound: (read: ReadMeasurement) => void) => void;
  stop: () => void;
}

/** One sweep at a time; leaving the page ends it, and nothing is kept of one that is ended. */
export function useTaking(): Taking {
  const [step, setStep] = useState<MeasurePlanStep | null>(null);
  const [share, setShare] = useState(0);
  const [failure, setFailure] = useState<{ error: unknown; step: MeasurePlanStep | null }>({
    error: null,
    step: null,
  });
  const abort = useRef<AbortController | null>(null);
  useEffect(() => () => abort.current?.abort(), []);
  const begin: Taking['begin'] = (wanted, mass, onFound) => {
    const controller = new AbortController();
    abort.current = controller;
    setStep(wanted);
    setShare(0);
    setFailure({ error: null, step: null });
    const told = (done: number) => {
      if (!controller.signal.aborted) setShare(done);
    };
    sweepRig(wanted.of, mass, controller.signal, told)
      .then(
        (read) => {
          if (!controller.signal.aborted) onFound(read);
        },
        (error: unknown) => {
          if (!controller.signal.aborted) setFailure({ error, step: wanted });
        },
      )
      .finally(() => {
        if (abort.current === controller) setStep(null);
      });
  };
  const stop = () => {
    abort.current?.abort();
    abort.current = null;
    setStep(null);
  };
  return { step, share, error: failure.error, failed: failure.step, begin, stop };
}
