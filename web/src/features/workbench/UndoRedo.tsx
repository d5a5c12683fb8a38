import type { Bench, Workbench } from '../../model/workbench';
import { Button } from '../../ui/Button';
import { Icon } from '../../ui/Icon';

export function UndoRedo({ workbench, bench }: { workbench: Workbench; bench: Bench }) {
  return (
    <div className="flex gap-1">
      <Button
        look="quiet"
        disabled={!bench.undo}
        title={bench.undo ? `Undo: ${bench.undo}` : 'Nothing to undo'}
        onClick={() => workbench.undo()}
      >
        <Icon name="undo" /> <span className="max-[1400px]:sr-only">Undo</span>
      </Button>
      <Button
        look="quiet"
        disabled={!bench.redo}
        title={bench.redo ? `Redo: ${bench.redo}` : 'Nothing to redo'}
        onClick={() => workbench.redo()}
      >
        <Icon name="redo" /> <span className="max-[1400px]:sr-only">Redo</span>
      </Button>
    </div>
  );
}
