import type { Window } from '../../actions/action';
import type { RawDesign, Report } from '../../api/types';
import { markAt } from '../../model/mark';
import type { Bench, OnBench } from '../../model/workbench';
import { ArchivedDialog } from './ArchivedDialog';
import { CompareDialog } from './CompareDialog';
import { HistoryDialog } from './HistoryDialog';
import { SpreadDialog } from './SpreadDialog';
import { SweepDialog } from './SweepDialog';
import type { Session } from './session';
import { WorkingsDialog } from './Workings';

interface Props {
  opened: Window | null;
  variant: OnBench;
  bench: Bench;
  session: Session;
  reports: ReadonlyMap<string, Report>;
  /** Makes a new variant. */
  onTry: (design: RawDesign) => void;
  onClose: () => void;
}

/** What opens over the workbench about its variants. */
export function Windows({ opened, variant, bench, session, reports, onTry, onClose }: Props) {
  const { id, design, place } = variant;
  const conditions = reports.get(id)?.conditions ?? '';
  switch (opened) {
    case 'sweep':
      return (
        <SweepDialog
          design={design}
          conditions={conditions}
          onUse={(next) => {
            session.workbench.edit(id, next, 'value turned');
            onClose();
          }}
          onTry={onTry}
          onClose={onClose}
        />
      );
    case 'spread':
      return <SpreadDialog design={design} conditions={conditions} mark={markAt(place)} onClose={onClose} />;
    case 'compare':
      return <CompareDialog bench={bench} reports={reports} onClose={onClose} />;
    case 'workings':
      return <WorkingsDialog variant={variant} conditions={conditions} onClose={onClose} />;
    case 'history':
      return <HistoryDialog variant={variant} onRestore={onTry} onClose={onClose} />;
    case 'archived':
      return (
        <ArchivedDialog
          build={session.build.id}
          onBack={(back) => {
            session.add(back);
            onClose();
          }}
          onClose={onClose}
        />
      );
    default:
      return null;
  }
}
