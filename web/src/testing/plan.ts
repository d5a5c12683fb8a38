// The plan of a build as the server answers it, cut down to what a test looks at.

import type { SheetProps } from '../features/build/sheet';
import type { Workbench } from '../model/workbench';
import type { BuildPlan, ItemReport, Step } from '../schema/types';

export const step = (change: Partial<Step>): Step => ({
  id: 'cut.label',
  phase: 'cut',
  phase_name: 'Cut',
  title: 'Label the boards',
  how: 'Write its number on each.',
  why: '',
  parts: [],
  panels: [],
  tools: [],
  minutes: 15,
  check: 'No board is without a number.',
  methods: [],
  after: [],
  ...change,
});

export const item = (change: Partial<ItemReport>): ItemReport =>
  ({
    id: 'glue.pva',
    name: 'Wood glue',
    shop: 'hardware',
    amount: 180,
    unit: 'g',
    pack: 250,
    packs: 1,
    price: 6,
    cost: 6,
    bought: false,
    note: '',
    ...change,
  }) as ItemReport;

export const plan = (change: Partial<BuildPlan>): BuildPlan => ({
  cabinets: 1,
  items: [],
  shops: [],
  cost: 212,
  budget: null,
  kit: null,
  mass: 18.2,
  hours: 21,
  rounded: [],
  sheets: [],
  veneers: [],
  holes: [],
  terminal_lacks_hole: false,
  steps: [],
  calendar: [],
  ends: null,
  finish: 'rolled',
  says: [],
  outdated: [],
  faults: [],
  ...change,
});

/** What a sheet of the stage Build is given, for the first variant of a workbench as it is now. */
export function sheetProps(workbench: Workbench, of: BuildPlan, onShow: (sheet: string) => void): SheetProps {
  const bench = workbench.snapshot();
  const variant = bench.variants[0];
  if (!variant) throw new Error('the workbench has no variant');
  return {
    plan: of,
    question: {
      question: { design: variant.design },
      today: '2026-05-01',
    } as unknown as SheetProps['question'],
    variant,
    workbench,
    bench,
    brief: null,
    build: 'b',
    onShow,
    onRefresh: () => undefined,
    error: null,
  };
}
