import { Popover } from 'radix-ui';
import { type RefObject, useDeferredValue } from 'react';
import { useSuggestions } from '../../api/queries/design';
import { NO_BRIEF } from '../../model/documents';
import { inWords } from '../../model/preferences';
import type { Workbench } from '../../model/workbench';
import type { RawBrief, RawDesign, Suggestion } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { useObserved } from '../../ui/observed';
import type { Chip } from './figures';
import { costWords, suggestedDesign, suggestionDetail, suggestionWords } from './suggestions';
import { Workings } from './Workings';

interface Props {
  chip: Chip;
  /** The figure. */
  beside: RefObject<HTMLElement | null>;
  variant: string;
  workbench: Workbench;
  brief: RawBrief | null;
  onTry: (design: RawDesign) => void;
  onBrief: (brief: RawBrief) => void;
  onClose: () => void;
}

/** Which workings stand behind a figure. */
const WORKED: Record<string, string[]> = {
  lowest: ['f3', 'level'],
  f3: ['f3', 'level'],
  loudness: ['clean'],
  loudest: ['level'],
  even: ['even', 'peak'],
  size: ['size', 'air_volume'],
  fits: ['fits'],
  place: ['place'],
  weight: ['weight'],
  cost: ['cost'],
  family: ['family'],
  air: ['air_speed'],
  cone: ['excursion'],
  load: ['load'],
  fb: ['tuning', 'port_length'],
  port: ['port_length'],
  radiator: ['radiator'],
  way: ['way'],
  fc: ['fc'],
  qtc: ['qtc'],
  level: ['level', 'efficiency', 'group_delay'],
};

/** Beside a figure: why, what fixes it, and how it is worked out. */
export function FigureCard({ beside, onTry, onBrief, onClose, ...of }: Props) {
  const then =
    <Value,>(does: (value: Value) => void) =>
    (value: Value) => {
      onClose();
      does(value);
    };
  return (
    <Popover.Root open onOpenChange={(next) => !next && onClose()}>
      <Popover.Anchor virtualRef={beside as RefObject<HTMLElement>} />
      <Popover.Portal>
        <Popover.Content
          aria-label={of.chip.name}
          sideOffset={4}
          collisionPadding={8}
          className="z-50 w-[min(30rem,94vw)] rounded-md border border-line bg-paper shadow-xl"
          // The figure itself closes what it has opened.
          onInteractOutside={(event) =>
            beside.current?.contains(event.target as Node) && event.preventDefault()
          }
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            beside.current?.focus();
          }}
        >
          <Behind {...of} onTry={then(onTry)} onBrief={then(onBrief)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Behind({ chip, variant, workbench, brief, onTry, onBrief }: Omit<Props, 'beside' | 'onClose'>) {
  const design = useObserved(workbench).variants.find(({ id }) => id === variant)?.design;
  const check = chip.id.startsWith('brief-') ? chip.id.slice('brief-'.length) : null;
  return (
    <div className="flex max-h-[70vh] flex-col gap-3 overflow-y-auto p-3">
      <div>
        <h2 className="text-[1.143rem]">
          {chip.name}: {inWords(chip.figure)}
        </h2>
        <p className={chip.verdict === 'short' ? 'text-short' : 'text-soft'}>{inWords(chip.words)}</p>
        <p className="mt-1">{inWords(chip.meaning)}</p>
      </div>
      {design && check && chip.verdict === 'short' && (
        <SuggestionList
          check={check}
          design={design}
          brief={brief ?? NO_BRIEF}
          onTry={onTry}
          onBrief={onBrief}
        />
      )}
      {design && <Workings ids={WORKED[check ?? chip.id] ?? []} design={design} judged={check !== null} />}
    </div>
  );
}

interface SuggestionListProps extends Pick<Props, 'onTry' | 'onBrief'> {
  title?: string;
  design: RawDesign;
  brief: RawBrief;
  check: string;
}

/** Changes that fix a check, each simulated. */
export function SuggestionList({
  title = 'Ways to fix it',
  check,
  design,
  brief,
  onTry,
  onBrief,
}: SuggestionListProps) {
  const suggestions = useSuggestions(brief, useDeferredValue(design), check);
  const { data } = suggestions;
  const all = data?.suggestions.length ? data.suggestions : data?.nearest ? [data.nearest] : [];
  return (
    <section aria-label={title}>
      <h3 className="mb-1">{title}</h3>
      <Message error={suggestions.error} />
      {suggestions.isPending && <p className="text-soft">Trying changes …</p>}
      {data && !data.suggestions.length && (
        <p className="mb-1">
          {data.nearest
            ? 'No single change reaches it. The closest:'
            : 'Nothing that was tried helps. Try another driver or another kind of cabinet.'}
        </p>
      )}
      <ul className="flex flex-col gap-1.5">
        {all.map((suggestion) => (
          <li
            key={suggestionDetail(suggestion) + suggestion.words}
            className="rounded-[3px] border border-line bg-card px-2.5 py-1.5"
          >
            <SuggestionRow suggestion={suggestion} design={design} onTry={onTry} onBrief={onBrief} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function SuggestionRow({
  suggestion,
  design,
  onTry,
  onBrief,
}: Pick<SuggestionListProps, 'design' | 'onTry' | 'onBrief'> & { suggestion: Suggestion }) {
  const made = suggestedDesign(design, suggestion);
  const { brief } = suggestion;
  return (
    <div className="flex items-start justify-between gap-3">
      <div>
        <p className="font-semibold">
          {suggestionWords(suggestion)}{' '}
          <span className="font-normal text-met">→ {inWords(suggestion.reached)}</span>
        </p>
        <p className="text-[0.929rem] text-soft">{suggestionDetail(suggestion)}</p>
        {suggestion.caveat && <p className="text-[0.929rem] text-short">{inWords(suggestion.caveat)}</p>}
        {suggestion.costs.length > 0 && (
          <p className="text-[0.929rem] text-soft">{suggestion.costs.map(costWords).join(' · ')}</p>
        )}
        {suggestion.effects.length > 0 && (
          <p className="text-[0.929rem]">
            {suggestion.effects.map(({ id, name, before, after, verdict }, at) => (
              <span key={id} className={verdict === 'short' ? 'text-short' : 'text-soft'}>
                {at > 0 && ' · '}
                {name.split(',')[0]} {inWords(before)} → {inWords(after)}
                {verdict === 'short' ? ', short' : ''}
              </span>
            ))}
          </p>
        )}
      </div>
      {made && (
        <Button onClick={() => onTry(made)} aria-label={`Try it: ${suggestionWords(suggestion)}`}>
          Try it
        </Button>
      )}
      {brief && (
        <Button
          onClick={() => onBrief(brief)}
          aria-label={`Change the brief: ${suggestionWords(suggestion)}`}
        >
          Change the brief
        </Button>
      )}
    </div>
  );
}
