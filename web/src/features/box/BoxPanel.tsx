import type { StageProps } from '../shell/stages';
import { BoxStage } from './BoxStage';

/** The box of the active variant. */
export function BoxPanel({ variant, workbench, brief, errors, onTry, onBrief }: StageProps) {
  return (
    <div className="min-h-0 flex-1 px-4 pt-2 pb-1">
      <BoxStage
        variant={variant}
        workbench={workbench}
        brief={brief}
        errors={errors}
        onTry={onTry}
        onBrief={onBrief}
      />
    </div>
  );
}
