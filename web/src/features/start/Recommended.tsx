import { useDeferredValue, useState } from 'react';
import { useRecommendation } from '../../api/queries/design';
import { inWords } from '../../model/preferences';
import { hertz } from '../../model/units';
import type { KindReport, RawBrief, RawDesign, RawDriver } from '../../schema/types';
import { Silhouette } from '../../section/Silhouette';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { Table } from '../../ui/Table';
import { SuggestionList } from '../workbench/FigureCard';

interface Props {
  driver: RawDriver;
  brief: RawBrief;
  busy: boolean;
  onBrief: (brief: RawBrief) => void;
  onMake: (design: RawDesign) => void;
}

const litres = (volume: number | null | undefined) =>
  volume == null ? '–' : inWords(`${(volume * 1e3).toFixed(volume < 0.01 ? 1 : 0)} l`);

const EFFORT = ['', 'easy', 'some care', 'harder', 'hard', 'very hard'];

/** Which kind of cabinet suits, what the others would give, and the box to begin with. */
export function Recommended({ driver, brief, busy, onBrief, onMake }: Props) {
  const asked = useDeferredValue(brief);
  const answer = useRecommendation(driver, asked);
  const wait = busy || asked !== brief || answer.isPlaceholderData;
  const [fixing, setFixing] = useState(false);
  const { data } = answer;
  if (!data)
    return answer.error ? (
      <Message error={answer.error} />
    ) : (
      <p className="text-soft">Working out every kind of cabinet …</p>
    );
  const best = data.kinds.find(({ family }) => family === data.family);
  const [first, second] = data.sentences;
  const short = best?.short[0];
  return (
    <div className="flex flex-col gap-3" aria-live="polite" aria-busy={wait}>
      <Message error={answer.error} />
      <p className="text-[1.214rem] leading-snug">{inWords(first ?? '')}</p>
      {second && <p className="text-soft">{inWords(second)}</p>}
      {data.assumed && <p className="text-[0.929rem] text-soft">{inWords(data.assumed)}</p>}
      <div className="flex flex-wrap gap-2">
        {best?.design && (
          <Button look="strong" disabled={wait} onClick={() => onMake(best.design as RawDesign)}>
            Make this box
          </Button>
        )}
        {best?.design && short && (
          <Button aria-expanded={fixing} onClick={() => setFixing(!fixing)}>
            What would fix {short.name.split(',')[0]?.toLowerCase()}
          </Button>
        )}
      </div>
      {fixing && best?.design && short && (
        <SuggestionList
          title={`What would fix ${short.name.split(',')[0]?.toLowerCase()}`}
          check={short.id}
          design={best.design}
          brief={brief}
          onTry={onMake}
          onBrief={onBrief}
        />
      )}
      <Kinds kinds={data.kinds} busy={wait} onMake={onMake} />
    </div>
  );
}

interface KindsProps {
  kinds: readonly KindReport[];
  busy: boolean;
  onMake: (design: RawDesign) => void;
}

/** Every kind of cabinet, as it does here; the best first. */
export function Kinds({ kinds, busy, onMake }: KindsProps) {
  const [plain, others] = [kinds.filter((kind) => kind.considered), kinds.filter((kind) => !kind.considered)];
  return (
    <>
      <KindTable caption="Kinds of cabinet, as they do here" kinds={plain} busy={busy} onMake={onMake} />
      {others.length > 0 && (
        <details>
          <summary>The other kinds, for those who like to build</summary>
          <KindTable caption="Other kinds" kinds={others} busy={busy} onMake={onMake} />
        </details>
      )}
    </>
  );
}

function KindTable({ caption, kinds, busy, onMake }: KindsProps & { caption: string }) {
  const none = (kind: KindReport) =>
    kind.design
      ? kind.buildable
        ? null
        : `Cannot be built here: ${kind.short[0]?.words ?? ''}.`
      : kind.reason;
  return (
    <Table
      caption={caption}
      rows={kinds}
      keyOf={({ family }) => family}
      rowOf={() => ({ className: 'align-middle' })}
      instead={(kind) => {
        const words = none(kind);
        return words && inWords(words);
      }}
      columns={[
        {
          name: 'Kind',
          names: true,
          cell: ({ family, name }) => (
            <span className="flex items-center gap-2 py-0.5 font-semibold">
              <Silhouette family={family} small />
              {name}
            </span>
          ),
        },
        { name: 'Outside', kind: 'figure', cell: ({ outside }) => litres(outside) },
        { name: 'F3', kind: 'figure', cell: ({ f3 }) => hertz(f3) },
        {
          name: 'Max. clean',
          kind: 'figure',
          cell: ({ loudness }) => (loudness == null ? '–' : `${loudness.toFixed(0)} dB`),
        },
        ...(kinds.some(({ cost }) => cost != null)
          ? [
              {
                name: 'Parts',
                kind: 'figure' as const,
                cell: ({ cost }: KindReport) => cost?.toFixed(0) ?? '–',
              },
            ]
          : []),
        {
          name: 'To build',
          headingClass: 'pl-2.5',
          className: 'pl-2.5',
          cell: ({ effort }) => EFFORT[effort],
        },
        {
          name: 'Short',
          headingClass: 'pl-2.5',
          className: 'pl-2.5 leading-tight',
          cell: ({ short }) =>
            short.length ? (
              <span className="text-short">
                {short.map(({ name }) => name.split(',')[0]?.toLowerCase()).join(', ')}
              </span>
            ) : (
              <span className="text-met">nothing</span>
            ),
        },
        {
          name: 'Make it',
          kind: 'action',
          cell: ({ name, design }) => (
            <Button
              disabled={busy}
              aria-label={`Make the ${name.toLowerCase()} box`}
              onClick={() => design && onMake(design)}
            >
              Make
            </Button>
          ),
        },
      ]}
    />
  );
}
