import { type ReactNode, useState } from 'react';
import { meaningIn, meanings } from '../model/meanings';
import type { Field } from '../model/units';
import { useObserved } from './observed';

interface Props {
  /** Said while nothing is pointed at. */
  otherwise: string;
  className?: string;
  children: (explain: (field: Field) => HelpProps) => ReactNode;
}

/** What an element needs so that pointing at it or moving into it explains it. */
export interface HelpProps {
  onPointerEnter: () => void;
  onFocus: () => void;
}

/** A group of values with one line below it that explains the value in hand, covering nothing. */
export function HelpText({ otherwise, className = '', children }: Props) {
  const [field, setField] = useState<Field | null>(null);
  const known = useObserved(meanings);
  const explain = (next: Field): HelpProps => ({
    onPointerEnter: () => setField(next),
    onFocus: () => setField(next),
  });
  return (
    <div className={className}>
      {children(explain)}
      <p className="min-h-[34px] text-[0.929rem] text-soft leading-[17px]">
        {field ? (
          <>
            <b className="text-ink">{field.symbol}</b> {meaningIn(known, field)}
          </>
        ) : (
          otherwise
        )}
      </p>
    </div>
  );
}
