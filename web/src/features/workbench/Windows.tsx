import { type ComponentType, Suspense } from 'react';
import type { Window } from '../../actions/action';
import type { Variant } from '../../api/documents';
import { markAt } from '../../model/mark';
import type { Bench, OnBench } from '../../model/workbench';
import type { RawBrief, RawDesign, Report } from '../../schema/types';
import { lazily } from '../../ui/lazily';

/** What a window over the workbench is given. */
export interface WindowProps {
  build: string;
  brief: RawBrief | null;
  /** The key of its document. */
  briefKey: string;
  /** The active variant; some windows need none. */
  variant: OnBench | null;
  bench: Bench;
  reports: ReadonlyMap<string, Report>;
  /** A driver that was chosen and has no cabinet yet. */
  carried: RawDesign | null;
  /** Puts another design in the place of the active variant's. */
  onEdit: (design: RawDesign, label: string) => void;
  /** Makes a new variant. */
  onTry: (design: RawDesign) => void;
  /** A variant is brought back from the archive. */
  onBack: (variant: Variant) => void;
  onBrief: (brief: RawBrief, search: boolean) => void;
  /** Opens another window in the place of this one. */
  onShow: (window: Window) => void;
  /** Goes on with the cabinet for a driver. */
  onCarry: (design: RawDesign) => void;
  onClose: () => void;
}

/** A window over the active variant: none where there is none. */
type OverVariant = Omit<WindowProps, 'variant'> & { variant: OnBench; conditions: string };

function over(Component: ComponentType<OverVariant>): ComponentType<WindowProps> {
  return function Over(props) {
    const { variant, reports } = props;
    if (!variant) return null;
    return <Component {...props} variant={variant} conditions={reports.get(variant.id)?.conditions ?? ''} />;
  };
}

const BriefDialog = lazily(() => import('../brief/BriefDialog').then(({ BriefDialog }) => BriefDialog));
const DriverDialog = lazily(() => import('./DriverDialog').then(({ DriverDialog }) => DriverDialog));
const CabinetDialog = lazily(() => import('./CabinetDialog').then(({ CabinetDialog }) => CabinetDialog));
const SweepDialog = lazily(() => import('./SweepDialog').then(({ SweepDialog }) => SweepDialog));
const SpreadDialog = lazily(() => import('./SpreadDialog').then(({ SpreadDialog }) => SpreadDialog));
const ScaleDialog = lazily(() => import('./ScaleDialog').then(({ ScaleDialog }) => ScaleDialog));
const KitDialog = lazily(() => import('./KitDialog').then(({ KitDialog }) => KitDialog));
const CompareDialog = lazily(() => import('./CompareDialog').then(({ CompareDialog }) => CompareDialog));
const WorkingsDialog = lazily(() => import('./Workings').then(({ WorkingsDialog }) => WorkingsDialog));
const HistoryDialog = lazily(() => import('./HistoryDialog').then(({ HistoryDialog }) => HistoryDialog));
const ArchivedDialog = lazily(() => import('./ArchivedDialog').then(({ ArchivedDialog }) => ArchivedDialog));

/** Every window; a new one is a line here and one in `actions/windows.ts`. */
const WINDOWS: Record<Exclude<Window, 'motion'>, ComponentType<WindowProps>> = {
  brief: ({ brief, onBrief, onShow, onClose }) => (
    <BriefDialog
      brief={brief}
      onClose={onClose}
      onKeep={(next) => onBrief(next, false)}
      onSearch={(next) => onBrief(next, true)}
      onHistory={() => onShow('brief-history')}
    />
  ),
  driver: over(({ variant, onEdit, onClose }) => (
    <DriverDialog design={variant.design} onClose={onClose} onChosen={(design) => onEdit(design, 'driver')} />
  )),
  'new-driver': ({ onCarry, onClose }) => <DriverDialog design={null} onClose={onClose} onChosen={onCarry} />,
  family: over(({ variant, brief, onEdit, onTry, onClose }) => (
    <CabinetDialog
      begun
      brief={brief}
      design={variant.design}
      onClose={onClose}
      onHere={(design) => onEdit(design, 'kind of cabinet')}
      onNew={onTry}
    />
  )),
  'new-cabinet': ({ carried, brief, onTry, onClose }) =>
    carried && (
      <CabinetDialog
        begun={false}
        brief={brief}
        design={carried}
        onClose={onClose}
        onHere={onTry}
        onNew={onTry}
      />
    ),
  sweep: over(({ variant, conditions, onEdit, onTry, onClose }) => (
    <SweepDialog
      design={variant.design}
      conditions={conditions}
      onUse={(next) => onEdit(next, 'value varied')}
      onTry={onTry}
      onClose={onClose}
    />
  )),
  spread: over(({ variant: { design, place }, conditions, onClose }) => (
    <SpreadDialog design={design} conditions={conditions} mark={markAt(place)} onClose={onClose} />
  )),
  scale: over(({ variant, brief, conditions, onEdit, onTry, onClose }) => (
    <ScaleDialog
      design={variant.design}
      brief={brief}
      conditions={conditions}
      onUse={(next) => onEdit(next, 'scaled')}
      onTry={onTry}
      onClose={onClose}
    />
  )),
  kit: over(({ variant, onEdit, onTry, onClose }) => (
    <KitDialog
      design={variant.design}
      onUse={(next) => onEdit(next, 'box of a kit')}
      onTry={onTry}
      onClose={onClose}
    />
  )),
  compare: over(({ bench, reports, onClose }) => (
    <CompareDialog bench={bench} reports={reports} onClose={onClose} />
  )),
  workings: over(({ variant, conditions, onClose }) => (
    <WorkingsDialog variant={variant} conditions={conditions} onClose={onClose} />
  )),
  history: over(({ variant, onTry, onClose }) => (
    <HistoryDialog
      id={variant.id}
      title={`History of ${variant.design.name}`}
      about="A state comes back as a new variant; this one stays as it is."
      restore="As a new variant"
      onRestore={(content) => onTry(content as RawDesign)}
      onClose={onClose}
    />
  )),
  'brief-history': ({ briefKey, onBrief, onClose }) => (
    <HistoryDialog
      id={briefKey}
      title="History of the brief"
      about="A state that is used again is saved on top of the others."
      restore="Use this brief"
      onRestore={(content) => onBrief(content as RawBrief, false)}
      onClose={onClose}
    />
  ),
  archived: ({ build, onBack, onClose }) => (
    <ArchivedDialog build={build} onBack={onBack} onClose={onClose} />
  ),
};

/** The window of an address; null where it names none. */
export function windowOf(name: string | null): keyof typeof WINDOWS | null {
  return name !== null && Object.hasOwn(WINDOWS, name) ? (name as keyof typeof WINDOWS) : null;
}

/** What is open over the workbench. */
export function Windows({ opened, ...props }: WindowProps & { opened: keyof typeof WINDOWS | null }) {
  const Opened = opened && WINDOWS[opened];
  if (!Opened) return null;
  return (
    <Suspense fallback={null}>
      <Opened {...props} />
    </Suspense>
  );
}
