import { useState } from 'react';
import { useLearned } from '../../api/queries/measure';
import { inWords } from '../../model/preferences';
import type { RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { usePreferences } from '../../ui/observed';
import { useOpenValues } from './learned';

interface Props {
  design: RawDesign;
  /** Takes the design with what was learned. */
  onUse: (design: RawDesign) => void;
}

/** What more than two builds say, offered where a variant has nothing written; nothing where there is nothing to offer. */
export function LearnedOffer({ design, onUse }: Props) {
  usePreferences();
  const [unwanted, turnDown] = useState(false);
  const learned = useLearned();
  const offers = learned.data?.some(({ offered }) => offered) ?? false;
  const { set, next } = useOpenValues(design, false, offers && !unwanted);
  if (unwanted || !set?.length) return null;
  return (
    <p className="flex flex-wrap items-center gap-2 rounded-[3px] border border-rule-line px-2 py-1 text-[0.929rem]">
      <span>Your own boxes say: {inWords(set.join('; '))}.</span>
      <Button disabled={!next} onClick={() => next && onUse(next)}>
        Use it
      </Button>
      <Button look="quiet" onClick={() => turnDown(true)}>
        Not now
      </Button>
    </p>
  );
}
