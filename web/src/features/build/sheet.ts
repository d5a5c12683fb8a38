import type { BuildPlan, RawPlanQuestion } from '../../schema/types';
import type { StageProps } from '../shell/stages';

/** What every sheet of the build is given. */
export interface SheetProps
  extends Pick<StageProps, 'variant' | 'workbench' | 'bench' | 'brief' | 'build' | 'onRefresh'> {
  plan: BuildPlan;
  question: RawPlanQuestion;
  /** Why there is no newer plan. */
  error: unknown;
  /** Leads to another sheet. */
  onShow: (sheet: string) => void;
}

const TENTHS = new Intl.NumberFormat('en', { maximumFractionDigits: 1 });

/** An amount of the parts list, to no more digits than one buys by. */
export function amountOf(amount: number, unit: string): string {
  const words = amount >= 100 ? Math.round(amount).toString() : TENTHS.format(amount).replaceAll(',', '');
  return `${words} ${unit === 'pieces' && words === '1' ? 'piece' : unit}`;
}

/** Money in whole units, unknown as a dash. */
export const money = (sum: number | null | undefined): string => (sum == null ? '–' : sum.toFixed(0));
