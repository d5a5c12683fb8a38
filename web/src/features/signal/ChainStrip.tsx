import type { ReactNode } from 'react';
import { shown, significant } from '../../model/units';
import type { RawDesign, RawFilterKind, Report, SignalReport } from '../../schema/types';
import { Icon } from '../../ui/Icon';
import { Item, Menu } from '../../ui/Menu';
import { FILTER_KINDS, filtersOf, kindName, partsOf } from './filters';

interface Props {
  design: RawDesign;
  signal: SignalReport | undefined;
  report: Report | undefined;
  selected: string;
  onSelect: (block: string) => void;
  onFilter: (kind: RawFilterKind) => void;
  /** A filter that was measured is read from a file. */
  onMeasured: () => void;
  onParts: (circuit: SignalReport['textbook'][number]) => void;
}

/** The chain as it is wired, from the signal to the drivers; each block says what it does here. */
export function ChainStrip({
  design,
  signal,
  report,
  selected,
  onSelect,
  onFilter,
  onMeasured,
  onParts,
}: Props) {
  const block = (id: string, props: Omit<BlockProps, 'pressed' | 'onPress'>) => (
    <Block key={id} {...props} pressed={selected === id} onPress={() => onSelect(id)} />
  );
  const amplifier = signal?.amplifier;
  const wrong = amplifier?.verdicts.find(({ met }) => met === false);
  return (
    <ol
      aria-label="Signal chain"
      className="flex items-stretch max-sm:flex-wrap max-sm:gap-y-1 sm:overflow-x-auto sm:pb-1"
    >
      {block('source', {
        name: 'Signal',
        value: signal ? `${significant(signal.volts, 3)} V` : '…',
        effect: 'where nothing shapes it',
      })}
      {filtersOf(design).map((filter, at) => {
        const said = signal?.filters[at];
        return block(`filter-${at}`, {
          name: `${at + 1} ${kindName(filter.kind)}`,
          value: filter.bypassed
            ? 'bypassed'
            : [filter.frequency, filter.gain, filter.delay]
                .filter((value) => value != null)
                .map((value) => shown(value as string))
                .join(', '),
          effect: said?.caution ? 'boosts below the tuning' : (said?.effect.split(', ')[0] ?? ''),
          wrong: Boolean(said?.caution),
          faint: filter.bypassed ?? false,
        });
      })}
      <Adds label="Add a filter" title="Filter">
        {FILTER_KINDS.map(([kind, name]) => (
          <Item key={kind} onSelect={() => onFilter(kind)}>
            {name}
          </Item>
        ))}
        <Item onSelect={onMeasured}>As measured, from a file …</Item>
      </Adds>
      {block('amplifier', {
        name: 'Amplifier',
        value: amplifier?.power
          ? `${significant(amplifier.power, 3)} W into ${significant(amplifier.load, 3)} Ω`
          : 'not known',
        effect: wrong ? `${wrong.name}: does not suit` : amplifier?.power ? 'suits' : 'choose one',
        wrong: Boolean(wrong),
      })}
      {block('cable', {
        name: 'Cable',
        value: !signal ? '…' : signal.cable > 0 ? `${significant(signal.cable, 2)} Ω` : 'not counted',
        effect: !signal?.cable ? 'set its length' : `−${signal.cable_loss.toFixed(2)} dB`,
      })}
      {partsOf(design).map((part, at) => {
        const said = signal?.parts[at];
        return block(`part-${at}`, {
          name: part.wiring === 'across' ? 'Across' : part.wiring === 'trap' ? 'Trap' : 'In series',
          value: [part.resistance, part.inductance, part.capacitance]
            .filter((value) => value != null)
            .map((value) => shown(value as string))
            .join(' + '),
          effect: part.bypassed
            ? 'bypassed'
            : said
              ? said.programme_heat < 0.05
                ? 'no heat'
                : `${significant(said.programme_heat, 2)} W of heat`
              : '',
          faint: part.bypassed ?? false,
        });
      })}
      <Adds label="Add passive parts" title="Parts">
        {(signal?.textbook ?? []).map((circuit) => (
          <Item key={circuit.id} onSelect={() => onParts(circuit)}>
            {circuit.name}
          </Item>
        ))}
      </Adds>
      {block('drivers', {
        name: 'Drivers',
        value: amplifier ? `${significant(amplifier.load, 3)} Ω` : '…',
        effect: report
          ? `lowest ${significant(report.figures.impedance_minimum.value, 3)} Ω at ${significant(report.figures.impedance_minimum.frequency, 2)} Hz`
          : '',
        last: true,
      })}
    </ol>
  );
}

interface BlockProps {
  name: string;
  value: string;
  effect: string;
  wrong?: boolean;
  faint?: boolean;
  last?: boolean;
  pressed: boolean;
  onPress: () => void;
}

function Block({ name, value, effect, wrong, faint, last, pressed, onPress }: BlockProps) {
  return (
    <li className="flex shrink-0 items-center">
      <button
        type="button"
        aria-pressed={pressed}
        onClick={onPress}
        className={`flex h-full min-w-[7.5rem] max-w-[16rem] flex-col items-start rounded-[3px] border px-2.5 py-1 text-left hover:border-oak ${
          pressed ? 'border-oak bg-rule' : wrong ? 'border-short bg-short-wash' : 'border-line bg-card'
        } ${faint ? 'opacity-70' : ''}`}
      >
        <span className="text-[0.893rem] text-soft">{name}</span>
        <span className="whitespace-nowrap font-mono font-semibold text-[0.929rem]">{value}</span>
        <span className={`max-w-full truncate text-[0.893rem] leading-tight ${wrong ? 'text-short' : ''}`}>
          {effect}
        </span>
      </button>
      {!last && <span aria-hidden="true" className="h-px w-3 shrink-0 bg-ink" />}
    </li>
  );
}

/** Where the chain is open for more. */
function Adds({ label, title, children }: { label: string; title: string; children: ReactNode }) {
  return (
    <li className="flex shrink-0 items-center">
      <Menu
        trigger={
          <button
            type="button"
            aria-label={`${title}: ${label}`}
            className="flex h-full min-h-9 items-center gap-1 rounded-[3px] border border-line border-dashed px-2 text-soft hover:border-oak hover:text-ink"
          >
            <Icon name="plus" /> {title}
          </button>
        }
      >
        {children}
      </Menu>
      <span aria-hidden="true" className="h-px w-3 shrink-0 bg-ink" />
    </li>
  );
}
