import { useMemo } from 'react';
import { Lanes } from '../../lanes/Lanes';
import { LanesMenu } from '../../lanes/LanesMenu';
import { readTyped } from '../../model/units';
import type { StageProps } from '../shell/stages';
import { useTheme } from '../shell/theme';
import { CabinetPanel } from '../workbench/CabinetPanel';
import { ConditionsBar } from './ConditionsBar';
import { NotComputed } from './NotComputed';

/** The curves of what is shown, beside the cabinet of the active variant and its values. */
export function CurvesStage(props: StageProps) {
  const { variant, workbench, bench, name, brief, report, problem, errors, shown, slow, onOpen } = props;
  const theme = useTheme();
  const tools = useMemo(
    () => <LanesMenu title={name} shown={shown} activeId={variant.id} />,
    [name, shown, variant.id],
  );
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] gap-4 px-4 pt-2 pb-1 lg:grid-cols-[minmax(0,1.62fr)_minmax(420px,1fr)]">
      <div className="relative flex min-h-0 flex-col max-lg:h-[640px]">
        <ConditionsBar shown={shown} bench={bench} workbench={workbench} />
        {problem !== undefined && <NotComputed problem={problem} />}
        <div className="min-h-0 flex-1">
          <Lanes shown={shown} activeId={variant.id} theme={theme} tools={tools} />
        </div>
      </div>
      <CabinetPanel
        variant={variant}
        workbench={workbench}
        report={report}
        errors={errors}
        least={readTyped(brief?.amplifier_load, 'resistance')?.si ?? null}
        slow={slow}
        onOpen={onOpen}
      />
    </div>
  );
}
