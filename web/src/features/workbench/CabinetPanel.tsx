import { Tabs } from 'radix-ui';
import { memo, Suspense, useEffect, useRef, useState } from 'react';
import type { Window } from '../../actions/action';
import { useCabinet } from '../../api/queries/box';
import { familyEntry } from '../../model/families';
import { markAt } from '../../model/mark';
import { inWords } from '../../model/preferences';
import type { OnBench, Workbench } from '../../model/workbench';
import type { FieldError, RawDesign, Report } from '../../schema/types';
import { Section } from '../../section/Section';
import type { Target } from '../../section/scene';
import { useInAddress } from '../../ui/address';
import { Button } from '../../ui/Button';
import { takeLostFocus } from '../../ui/focus';
import { Icon } from '../../ui/Icon';
import { lazily } from '../../ui/lazily';
import { MarkGlyph } from '../../ui/MarkGlyph';
import { TextInput } from '../../ui/TextInput';
import { FOLLOWED, useThrottled } from '../../ui/throttle';
import { groupsOf } from './groups';
import { KindChoices } from './Kinds';
import { LearnedOffer } from './LearnedOffer';
import type { OpenPart } from './PartCard';
import { ValueTapes } from './ValueTapes';

const SlowMotion = lazily(() => import('./SlowMotion').then((part) => part.SlowMotion));
const WiringDialog = lazily(() => import('./WiringDialog').then((part) => part.WiringDialog));
const WayCurve = lazily(() => import('./WayCurve').then((part) => part.WayCurve));
const PartCard = lazily(() => import('./PartCard').then((part) => part.PartCard));

interface Props {
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  errors: FieldError[];
  /** The minimum load that the amplifier of the brief stands, ohm. */
  least: number | null;
  /** Whether cone and air are shown moving. */
  slow: boolean;
  /** Opens something over the workbench, or begins and ends the slow motion. */
  onOpen: (window: Window) => void;
}

/** The active variant: its cabinet drawn to scale and every value that makes it. */
export const CabinetPanel = memo(function CabinetPanel(props: Props) {
  const { variant, workbench, report, errors, least, slow, onOpen } = props;
  const [part, setPart] = useState<OpenPart | null>(null);
  const [wiring, setWiring] = useState(false);
  const { design, id } = variant;
  const groups = groupsOf(design);
  const [chosen, choose] = useInAddress(
    'part',
    groups.map((one) => one.id),
  );
  const group = groups.find((one) => one.id === chosen);
  const edit = (next: RawDesign, label: string) => workbench.edit(id, next, label);

  return (
    <section aria-label="Cabinet" className="flex h-full min-h-0 flex-col gap-1.5">
      <div className="flex items-center gap-2">
        <MarkGlyph mark={markAt(variant.place)} size={14} />
        <TextInput
          label="Name of the variant"
          value={design.name ?? ''}
          longest={120}
          className="flex-1 font-head font-semibold text-[1.143rem]"
          onChange={(name) => edit({ ...design, name }, 'name')}
        />
        <button
          type="button"
          onClick={() => onOpen('family')}
          title="Another kind of cabinet, or another starting point"
          className="flex max-w-[13rem] shrink-0 items-center gap-1 rounded-[3px] border border-rule-line bg-rule px-2.5 py-1 font-medium hover:border-oak"
        >
          <span className="sr-only">Kind of cabinet: </span>
          <span className="truncate">{familyEntry(design.enclosure.family).name}</span>
          <Icon name="down" />
        </button>
      </div>
      <button
        type="button"
        onClick={() => onOpen('driver')}
        className="min-w-0 truncate rounded-[3px] border border-line bg-card px-2 py-1 text-left hover:border-oak"
      >
        <span className="text-soft">Driver </span>
        <span className="font-semibold">
          {report && report.used.count > 1 ? `${report.used.count} × ` : ''}
          {design.driver.name || 'without a name'}
        </span>
        {report && <span className="text-soft"> · {inWords(driverWords(report))}</span>}
      </button>
      <div className="min-h-0 flex-1">
        {report && (
          <Drawing
            {...props}
            report={report}
            onTarget={(target, element) =>
              target.path === 'driver' ? onOpen('driver') : setPart({ target, part: element })
            }
          />
        )}
      </div>
      {part && (
        <Suspense fallback={null}>
          <PartCard
            open={part}
            variant={variant}
            workbench={workbench}
            report={report}
            errors={errors}
            onClose={() => setPart(null)}
          />
        </Suspense>
      )}
      {group && !slow && (
        <Tabs.Root value={group.id} onValueChange={choose} activationMode="automatic" className="shrink-0">
          <Tabs.List aria-label="Parts" className="mb-1.5 flex flex-wrap border-line border-b">
            {groups.map(({ id: value, name }) => (
              <Tabs.Trigger
                key={value}
                value={value}
                className="-mb-px border-transparent border-b-2 px-2 py-0.5 text-soft hover:text-ink data-[state=active]:border-oak data-[state=active]:font-semibold data-[state=active]:text-ink"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value={group.id} className="flex flex-col gap-1.5" tabIndex={-1}>
            <div className="flex flex-wrap items-center gap-1.5 empty:hidden">
              {group.kinds
                .filter(({ of }) => of !== 'inner_end')
                .map((kind) => (
                  <KindChoices key={JSON.stringify(kind)} design={design} kind={kind} onChange={edit} />
                ))}
              {group.id === 'drivers' && (
                <Button onClick={() => setWiring(true)}>Wiring and changes …</Button>
              )}
            </div>
            {group.kinds.some(({ of }) => of === 'curve') && (
              <Suspense fallback={null}>
                <WayCurve variant={variant} workbench={workbench} report={report} />
              </Suspense>
            )}
            {group === groups[0] && (
              <LearnedOffer key={id} design={design} onUse={(next) => edit(next, 'learned values')} />
            )}
            <ValueTapes
              group={group}
              onChoose={edit}
              variant={variant}
              workbench={workbench}
              report={report}
              errors={errors}
            />
          </Tabs.Content>
        </Tabs.Root>
      )}
      {wiring && (
        <Suspense fallback={null}>
          <WiringDialog
            open
            design={design}
            report={report}
            least={least}
            onClose={() => setWiring(false)}
            onWire={(driver_array) => edit({ ...design, driver_array }, 'wiring')}
          />
        </Suspense>
      )}
    </section>
  );
});

interface DrawingProps extends Props {
  report: Report;
  onTarget: (target: Target, part: Element) => void;
}

/** The drawing as it stands, or in slow motion. */
function Drawing(props: DrawingProps) {
  const { slow, variant, report, workbench, onOpen, onTarget } = props;
  // The boards follow the values a moment later.
  const body = useCabinet(useThrottled(variant.design, FOLLOWED)).data;
  const pulled = {
    onTarget,
    onPull: (design: RawDesign) => workbench.preview(variant.id, design),
    onCommit: (label: string) => workbench.commit(label.toLowerCase()),
  };
  const holder = useRef<HTMLDivElement>(null);
  const was = useRef(slow);
  useEffect(() => {
    if (was.current === slow) return;
    was.current = slow;
    takeLostFocus(holder.current, '[data-slow]');
  }, [slow]);
  if (slow) {
    return (
      <div ref={holder} className="h-full">
        <Suspense fallback={null}>
          <SlowMotion
            design={variant.design}
            report={report}
            body={body}
            onClose={() => onOpen('motion')}
            {...pulled}
          />
        </Suspense>
      </div>
    );
  }
  return (
    <div ref={holder} className="relative h-full">
      <Section design={variant.design} report={report} body={body} slowly={null} {...pulled} />
      <div className="absolute top-0 right-0 flex flex-col items-stretch gap-1">
        <Button data-slow="" onClick={() => onOpen('motion')}>
          <Icon name="play" /> Slow motion
        </Button>
        <Button onClick={() => onOpen('sweep')}>What if …</Button>
        <Button onClick={() => onOpen('spread')}>How sure?</Button>
      </div>
    </div>
  );
}

/** What is done to a driver moves these; together they are said of all drivers as one. */
function driverWords({ used }: Report): string {
  return `Fs ${used.fs.toFixed(0)} Hz, Qts ${used.qts.toFixed(2)}, Vas ${(used.vas * 1e3).toFixed(0)} l`;
}
