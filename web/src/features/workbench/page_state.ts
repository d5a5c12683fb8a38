// What the page of the workbench follows: the address, conflicts, conditions, and what is shown.

import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useSearchParams } from 'react-router';
import type { Window } from '../../actions/action';
import type { Shown } from '../../lanes/shown';
import { type Asked, conditions } from '../../model/conditions';
import { copyOf } from '../../model/design';
import { keyOf } from '../../model/drafts';
import { markAt } from '../../model/mark';
import type { Outbox } from '../../model/outbox';
import type { Bench, HeardKind, Workbench } from '../../model/workbench';
import { workshopOn } from '../../model/workshop';
import type { RawDesign, RawListeningPlace, RawPreset, Report } from '../../schema/types';
import { addressWith } from '../../ui/address';
import { useObserved } from '../../ui/observed';
import { windowOf } from './Windows';

/** Which variant is worked on stands in the address; an address with another leads there. */
export function useAddress(workbench: Workbench, activeId: string | null): void {
  const named = useSearchParams()[0].get('variant');
  useEffect(() => {
    const { variants } = workbench.snapshot();
    if (named && variants.some(({ id, archived }) => id === named && !archived)) workbench.activate(named);
  }, [named, workbench]);
  useEffect(() => {
    // Written beside the router, whose navigations would cut each other off.
    const { state } = window.history;
    const params = addressWith('variant', activeId);
    window.history.replaceState(state, '', `${window.location.pathname}${params.size ? `?${params}` : ''}`);
  }, [activeId]);
}

/** The window that is open stands in the address, so that Back closes it and a reload opens it again. */
export function useWindow() {
  const [params, setParams] = useSearchParams();
  const opened = windowOf(params.get('open'));
  const show = useCallback(
    (window: Window) => setParams(() => addressWith('open', window), { replace: opened !== null }),
    [setParams, opened],
  );
  const close = useCallback(() => setParams(() => addressWith('open', null), { replace: true }), [setParams]);
  return { opened, show, close };
}

/** Whether the choice between two states is open: at once where there is one, and again when it is asked for. */
export function useConflict(outbox: Outbox) {
  const { conflict } = useSyncExternalStore(outbox.subscribe, outbox.snapshot);
  const about = conflict && keyOf(conflict.document);
  const [put, setPut] = useState<string | null>(null);
  useEffect(() => {
    if (!about) setPut(null);
  }, [about]);
  const close = useCallback(() => setPut(about), [about]);
  const choose = useCallback(() => setPut(null), []);
  return { open: about !== null && about !== put, close, choose };
}

/** What travels with every computation: the brief of the build, what it is played through, and where it is heard. */
export function useAsked({ text: { brief }, kept, listening }: Bench): Asked {
  const { basis } = useObserved(conditions);
  const chosen = (kind: HeardKind) =>
    kept.find((one) => one.kind === kind && one.id === listening[kind] && !one.archived)?.content;
  const [preset, place] = [chosen('preset') as RawPreset | undefined, chosen('place')];
  const made = workshopOn({ kept });
  return useMemo(() => {
    const heard = { ...(preset && { preset }), ...(place ? { place: place as RawListeningPlace } : {}) };
    // On the bench nothing is played through anything, and nobody listens.
    const workshop = made ? { workshop: made } : {};
    return { brief, conditions: { basis, ...(basis === 'in_use' && heard), ...workshop } };
  }, [brief, basis, preset, place, made]);
}

/** With a name that no variant on the bench has. */
export function unlike(design: RawDesign, bench: Bench): RawDesign {
  const others = bench.variants.filter((variant) => !variant.archived).map((variant) => variant.design);
  return others.some((other) => other.name === design.name) ? copyOf(design, others) : design;
}

/** What the lanes show; the same list while a drag has changed a design and its curves have not come yet. */
export function useShown(bench: Bench, reports: ReadonlyMap<string, Report>): Shown[] {
  const names = JSON.stringify(bench.variants.map(({ id, design, archived }) => [id, design.name, archived]));
  // biome-ignore lint/correctness/useExhaustiveDependencies: of the variants only what is in `names` is shown
  return useMemo(
    () =>
      bench.variants.flatMap((variant): Shown[] => {
        const { id, place, design } = variant;
        const report = reports.get(id);
        if (variant.archived || !report || !bench.shown.has(id)) return [];
        const { traces } = report;
        return [{ id, place, report, traces, design, name: design.name ?? '', mark: markAt(place) }];
      }),
    [names, bench.shown, reports],
  );
}
