// What a stage of the work is. Each is a folder under `features/` with one registration; `stages.ts` beside `main.tsx` lists them in
// the order of the work, and bar, routes, palette and help are made from that list.

import { type ComponentType, createContext, use, useMemo } from 'react';
import { ACTIONS } from '../../actions';
import type { Action, Window } from '../../actions/action';
import { toStage } from '../../actions/go';
import type { Shown } from '../../lanes/shown';
import type { Bench, KeptKind, OnBench, Workbench } from '../../model/workbench';
import type { Check, FieldError, ProblemDocument, RawBrief, RawDesign, Report } from '../../schema/types';

/** What a stage is given to show. */
export interface StageProps {
  variant: OnBench;
  workbench: Workbench;
  bench: Bench;
  /** Key of the build. */
  build: string;
  name: string;
  brief: RawBrief | null;
  report: Report | undefined;
  /** What of the design cannot be computed; null where the server is away. */
  problem: ProblemDocument | null | undefined;
  errors: FieldError[];
  shown: Shown[];
  /** Whether slow motion plays. */
  slow: boolean;
  /** Makes a new variant. */
  onTry: (design: RawDesign) => void;
  onBrief: (brief: RawBrief) => void;
  onOpen: (window: Window) => void;
  /** Looks at what somebody else has made of a document that a build has one of. */
  onRefresh: (kind: KeptKind) => void;
}

/** What the state of a stage is told by. */
export interface Work {
  brief: RawBrief | null;
  /** The active variant. */
  design: RawDesign | null;
  /** How it stands to the brief. */
  checks: readonly Check[];
  /** Whether the build knows a place where it is listened to. */
  heard: boolean;
  /** Whether anything of it is measured. */
  measured: boolean;
}

export type Progress = 'untouched' | 'in progress' | 'done';

export interface Stage {
  id: string;
  name: string;
  /** As a command, such as "Go to the box". */
  command: string;
  keys: string;
  /** Its own part of the address of a build, or the window that it is. */
  opens: { path: string; Panel: ComponentType<StageProps> } | { window: Window } | { page: string };
  progress: (work: Work) => Progress;
  /** What is best done there next. */
  next: (work: Work) => string;
}

/** What is judged by the box as it is drawn. */
export const isOfTheBox = ({ id }: Check): boolean => ['fits', 'place', 'size', 'weight'].includes(id);

export const StagesContext = createContext<readonly Stage[]>([]);

/** All stages, in the order of the work. */
export const useStages = () => use(StagesContext);

/** Where a stage of a build is; of one that is a window, the build. */
export function addressOf({ opens }: Stage, build: string): string {
  const ending = 'path' in opens ? opens.path : 'page' in opens ? opens.page : '';
  return `/builds/${build}${ending && `/${ending}`}`;
}

/** Every command, those of the stages with them. */
export function useActions(): readonly Action[] {
  const stages = useStages();
  return useMemo(() => {
    const goes = stages.map((stage) => {
      const { id, command, keys, opens } = stage;
      return toStage(id, command, keys, (context) => {
        if ('window' in opens) context.open(opens.window);
        else context.go(addressOf(stage, context.build ?? ''));
      });
    });
    return [...ACTIONS, ...goes];
  }, [stages]);
}
