import { useDeferredValue, useState } from 'react';
import { useWorkings } from '../../api/queries/design';
import { inWords } from '../../model/preferences';
import type { OnBench } from '../../model/workbench';
import type { RawDesign, Working } from '../../schema/types';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { Scroll } from '../../ui/Scroll';

interface WorkingsProps {
  ids: string[];
  design: RawDesign;
  /** Whether the brief asks about them, so that they are as it uses the design whatever else is shown. */
  judged?: boolean;
}

/** How some figures of a design are worked out. */
export function Workings(props: WorkingsProps) {
  if (!props.ids.length) return null;
  return (
    <section aria-label="How is this worked out?">
      <h3 className="mb-1">How is this worked out?</h3>
      <Found {...props} />
    </section>
  );
}

/** The same, worked out once it is asked for. */
export function FoldedWorkings(props: WorkingsProps) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>How is this worked out?</summary>
      {open && <Found {...props} />}
    </details>
  );
}

function Found({ ids, design, judged = false }: WorkingsProps) {
  const workings = useWorkings(useDeferredValue(design), judged);
  const found = ids.flatMap((id) => workings.data?.find((one) => one.id === id) ?? []);
  return (
    <>
      <Message error={workings.error} />
      {found.map((working) => (
        <WorkingText key={working.id} working={working} />
      ))}
    </>
  );
}

function WorkingText({ working: { name, result, formula, inputs, source } }: { working: Working }) {
  return (
    <div className="mb-2">
      <p>
        <b>{name}</b> {inWords(result)}
      </p>
      <p className="font-mono text-[0.929rem]">{formula}</p>
      {inputs.length > 0 && (
        <p className="text-[0.929rem]">
          {inputs.map(({ symbol, value }) => (
            <span key={symbol} className="mr-3 inline-block">
              <span className="text-soft">{symbol}</span> {inWords(value)}
            </span>
          ))}
        </p>
      )}
      <p className="text-[0.929rem] text-soft">{source}</p>
    </div>
  );
}

interface DialogProps {
  variant: OnBench;
  /** In words. */
  conditions: string;
  onClose: () => void;
}

/** Every figure of a variant on one sheet, each with what it is worked out from. */
export function WorkingsDialog({ variant: { design }, conditions, onClose }: DialogProps) {
  const workings = useWorkings(design);
  return (
    <Dialog
      title={`Figures of ${design.name}, worked out`}
      about={`Formula, what went into it, and where it comes from. ${conditions}.`}
      open
      wide
      onClose={onClose}
    >
      <Message error={workings.error} />
      {workings.isPending && <p className="text-soft">Working them out …</p>}
      <Scroll label="All figures" className="columns-1 gap-8 md:columns-2">
        {workings.data?.map((working) => (
          <div key={working.id} className="break-inside-avoid border-grid border-b pt-1.5">
            <WorkingText working={working} />
          </div>
        ))}
      </Scroll>
    </Dialog>
  );
}
