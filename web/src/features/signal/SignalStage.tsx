import { Suspense, useCallback, useMemo, useState } from 'react';
import { useSignal } from '../../api/queries/signal';
import { Lanes } from '../../lanes/Lanes';
import { LanesMenu } from '../../lanes/LanesMenu';
import type { RawDesign, RawFilterKind, RawPart } from '../../schema/types';
import { useInAddress } from '../../ui/address';
import { Button } from '../../ui/Button';
import { lazily } from '../../ui/lazily';
import { Message } from '../../ui/Message';
import { Scroll } from '../../ui/Scroll';
import { FOLLOWED, useThrottled } from '../../ui/throttle';
import { ConditionsBar } from '../curves/ConditionsBar';
import { NotComputed } from '../curves/NotComputed';
import type { StageProps } from '../shell/stages';
import { useTheme } from '../shell/theme';
import { BlockPanel } from './BlockPanel';
import { ChainStrip } from './ChainStrip';
import { FilterHandles } from './FilterHandles';
import { filtersOf, newFilter, partsOf, withFilters, withParts } from './filters';
import { Proposals } from './Proposals';

const CrossoverDialog = lazily(() => import('./CrossoverDialog').then((part) => part.CrossoverDialog));
const PresetsDialog = lazily(() => import('./PresetsDialog').then((part) => part.PresetsDialog));
const MeasuredDialog = lazily(() => import('./MeasuredDialog').then((part) => part.MeasuredDialog));
const BiquadDialog = lazily(() => import('./BiquadDialog').then((part) => part.BiquadDialog));

/** From the signal to the drivers: the chain as it is wired, the curves with a handle on each filter, and what the chosen block does. */
export function SignalStage(props: StageProps) {
  const { variant, workbench, bench, name, report, problem, errors, shown } = props;
  const { design, id } = variant;
  const theme = useTheme();
  const answer = useSignal(useThrottled(design, FOLLOWED));
  const signal = answer.data;
  const blocks = [
    'amplifier',
    'source',
    'cable',
    'drivers',
    ...filtersOf(design).map((_, at) => `filter-${at}`),
    ...partsOf(design).map((_, at) => `part-${at}`),
  ];
  const [block, select] = useInAddress('block', blocks);
  const [opened, open] = useState<'biquads' | 'crossover' | 'presets' | 'measured' | null>(null);
  const edit = useCallback(
    (next: RawDesign, label: string) => workbench.edit(id, next, label),
    [workbench, id],
  );
  const addFilter = (kind: RawFilterKind) => {
    const filters = filtersOf(design);
    edit(withFilters(design, [...filters, newFilter(kind, signal?.sealed ?? null)]), 'filter');
    select(`filter-${filters.length}`);
  };
  const addParts = (more: RawPart[]) => {
    const parts = partsOf(design);
    edit(withParts(design, [...parts, ...more]), 'passive parts');
    select(`part-${parts.length}`);
  };
  const tools = useMemo(() => <LanesMenu title={name} shown={shown} activeId={id} />, [name, shown, id]);
  const preview = useCallback((next: RawDesign) => workbench.preview(id, next), [workbench, id]);
  const commit = useCallback((label: string) => workbench.commit(label), [workbench]);
  return (
    <section aria-label="Signal" className="flex min-h-0 flex-1 flex-col gap-1.5 px-4 pt-2 pb-1">
      <ChainStrip
        design={design}
        signal={signal}
        report={report}
        selected={block}
        onSelect={select}
        onFilter={addFilter}
        onMeasured={() => open('measured')}
        onParts={({ parts }) => addParts(parts)}
      />
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1.62fr)_minmax(400px,1fr)]">
        <div className="relative flex min-h-0 flex-col max-lg:h-[560px]">
          <ConditionsBar shown={shown} bench={bench} workbench={workbench} />
          {problem !== undefined && <NotComputed problem={problem} />}
          <div className="min-h-0 flex-1">
            <Lanes
              shown={shown}
              activeId={id}
              theme={theme}
              tools={tools}
              over={(place) => (
                <FilterHandles
                  place={place}
                  design={design}
                  selected={block}
                  onSelect={select}
                  onPreview={preview}
                  onCommit={commit}
                />
              )}
            />
          </div>
        </div>
        <Scroll label="The chosen block" className="min-h-0 overflow-y-auto pr-1 pb-2">
          <Message error={answer.error} />
          <BlockPanel
            block={block}
            variant={variant}
            workbench={workbench}
            report={report}
            signal={signal}
            errors={errors}
            onEdit={edit}
            onSelect={select}
          />
          <Proposals
            signal={signal}
            onAdd={(filter) => {
              const filters = filtersOf(design);
              edit(withFilters(design, [...filters, filter]), 'filter');
              select(`filter-${filters.length}`);
            }}
          />
          <p className="mt-3 flex flex-wrap gap-1.5">
            <Button onClick={() => open('presets')}>Presets …</Button>
            <Button onClick={() => open('crossover')}>Crossover to the mains …</Button>
            {filtersOf(design).length > 0 && (
              <Button onClick={() => open('biquads')}>Biquads for a processor …</Button>
            )}
          </p>
        </Scroll>
      </div>
      <Suspense fallback={null}>
        {opened === 'biquads' && <BiquadDialog design={design} onClose={() => open(null)} />}
        {opened === 'crossover' && (
          <CrossoverDialog
            variant={variant}
            workbench={workbench}
            report={report}
            errors={errors}
            onEdit={edit}
            onClose={() => open(null)}
          />
        )}
        {opened === 'measured' && (
          <MeasuredDialog
            onUse={(trace) => {
              const filters = filtersOf(design);
              edit(withFilters(design, [...filters, { kind: 'measured', trace }]), 'measured filter');
              select(`filter-${filters.length}`);
              open(null);
            }}
            onClose={() => open(null)}
          />
        )}
        {opened === 'presets' && (
          <PresetsDialog
            workbench={workbench}
            bench={bench}
            design={design}
            onUse={(filters, called) => {
              edit(withFilters(design, filters), `preset ${called}`);
              select('amplifier');
              open(null);
            }}
            onClose={() => open(null)}
          />
        )}
      </Suspense>
    </section>
  );
}
