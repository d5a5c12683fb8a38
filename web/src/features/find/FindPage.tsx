import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { answered, api } from '../../api/client';
import { briefOf, createVariant, has, nameOf, variantsOf } from '../../api/documents';
import { useBuildNow } from '../../api/queries/builds';
import { useJudgement } from '../../api/queries/design';
import { runs, useFound, useMatchOf, usePoints } from '../../api/queries/jobs';
import { FAMILIES, type Family } from '../../model/families';
import type { DriverMatch, OpenBuild, RawBrief } from '../../schema/types';
import { useInAddress } from '../../ui/address';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { usePreferences } from '../../ui/observed';
import { Select } from '../../ui/Select';
import { Shell } from '../shell/Shell';
import { StageBar } from '../shell/StageBar';
import type { Chosen } from './chosen';
import { FoundTable } from './FoundTable';
import { Outcomes } from './Outcomes';
import { Progress } from './Progress';
import { Tradeoff } from './Tradeoff';
import { WhyNot } from './WhyNot';

/** Searches the library for drivers and cabinets that reach a build's brief. */
export function FindPage() {
  usePreferences();
  const { id = '' } = useParams();
  const build = useBuildNow(id);
  const match = useMatchOf(id);
  const title = build.data ? `Drivers for ${nameOf(build.data)}` : 'Find a driver';
  const brief = build.data && briefOf(build.data);
  return (
    <Shell title={title} beside={<Beside id={id} build={build.data} />}>
      {build.data && brief && match.data !== undefined ? (
        <Find build={build.data} brief={brief} begun={match.data} />
      ) : (
        <div className="p-8">
          <h1 className="mb-2 text-2xl">{title}</h1>
          <Message error={build.error ?? match.error} />
          {build.data && !brief && (
            <p>A search needs a brief. Write it on the workbench first: the lowest note at least.</p>
          )}
        </div>
      )}
    </Shell>
  );
}

function Beside({ id, build }: { id: string; build: OpenBuild | undefined }) {
  const navigate = useNavigate();
  const brief = build ? briefOf(build) : null;
  const design = (build && variantsOf(build)[0]?.content) ?? null;
  const checks = useJudgement(brief, design).data ?? [];
  const [heard, measured] = [has(build, 'place'), has(build, 'measurement')];
  return (
    <>
      <Link to={`/builds/${id}`} className="rounded-[3px] px-1 font-medium text-oak hover:underline">
        ← To the workbench
      </Link>
      <StageBar
        build={id}
        stage="driver"
        work={{ brief, design, checks, heard, measured }}
        onOpen={(window) => navigate(`/builds/${id}?open=${window}`)}
      />
    </>
  );
}

const COUNTS = ['1', '2', '3', '4', '6', '8'].map(
  (count) => [count, count === '1' ? 'one driver' : `${count} drivers`] as const,
);
const SEARCHED: Family[] = ['sealed', 'ported', 'passive_radiator', 'bandpass4', 'line'];
const KINDS = [
  ['all', 'all kinds'],
  ...FAMILIES.filter(({ id }) => SEARCHED.includes(id)).map(({ id, name }) => [id, name] as const),
] as const satisfies readonly (readonly [string, string])[];

const KIND_IDS: readonly string[] = KINDS.map(([id]) => id);

interface FindProps {
  build: OpenBuild;
  brief: RawBrief;
  begun: DriverMatch | null;
}

function Find({ build, brief, begun }: FindProps) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [count, setCount] = useState(String(begun?.drivers ?? 1));
  const [kind, setKind] = useInAddress<string>('kind', KIND_IDS);
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const found = useFound(begun?.id, kind === 'all' ? undefined : (kind as Family));
  const match = found.data?.job ?? begun;
  const cancel = useMutation({
    mutationFn: (id: string) => answered(api.POST('/api/v1/jobs/{id}/cancel', { params: { path: { id } } })),
    onSuccess: (match) => client.invalidateQueries({ queryKey: ['found', match.id] }),
  });
  const begin = useMutation({
    mutationFn: async (drivers: number) => {
      // One at a time in a build: what is at work makes way.
      if (match && runs(match)) await cancel.mutateAsync(match.id);
      const params = { path: { id: build.id } };
      const body = { brief, drivers };
      return answered(api.POST('/api/v1/builds/{id}/driver-matches', { params, body }));
    },
    onSuccess: (match) => {
      setChosen(null);
      take.reset();
      client.setQueryData(['match of', build.id], match);
    },
  });
  const take = useMutation({
    mutationFn: async ({ driver, family }: { driver: string; family: Family }) => {
      const params = { path: { id: begun?.id ?? '', driver, family } };
      const body = await answered(
        api.GET('/api/v1/driver-matches/{id}/drivers/{driver}/{family}', { params }),
      );
      return createVariant(build.id, body);
    },
    onSuccess: (variant) => navigate(`/builds/${build.id}?variant=${variant.id}`),
    // Another window may have searched again meanwhile.
    onError: () => client.invalidateQueries({ queryKey: ['match of', build.id] }),
  });
  // A search that begins takes the place of what is still listed.
  const busy = take.isPending || begin.isPending;

  // Whoever comes here wants to have searched, and in a library that is no longer empty.
  const first = useRef(!begun?.total);
  const { mutate } = begin;
  useEffect(() => {
    if (first.current) mutate(1);
    first.current = false;
  }, [mutate]);

  // The points are fetched some times while a search runs, not each time it is looked at.
  const step = match ? Math.ceil(match.done / Math.max(1, Math.ceil(match.total / 8))) : 0;
  const points = usePoints(begun?.id, runs(match) ? step : match?.done);
  const changed = begun !== null && JSON.stringify(begun.brief) !== JSON.stringify(brief);
  const onTake = (driver: string, family: Family) => take.mutate({ driver, family });
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.7fr)_minmax(380px,1fr)]">
      <section aria-label="What was found" className="flex min-h-0 flex-col gap-2 px-4 pt-3">
        <div className="flex items-center gap-2">
          <h1 className="flex-1 truncate text-xl">Drivers for {nameOf(build)}</h1>
          <Select
            label="How many drivers in a cabinet"
            className="max-w-32"
            value={count}
            options={COUNTS}
            onChange={setCount}
          />
          <Button look="strong" disabled={begin.isPending} onClick={() => begin.mutate(Number(count))}>
            {begun ? 'Search again' : 'Search the library'}
          </Button>
        </div>
        {changed && (
          <p className="rounded-[3px] border border-oak bg-card px-2 py-1">
            The brief was changed after this search; what is listed is for the brief as it was. Search again.
          </p>
        )}
        <Message error={begin.error ?? cancel.error ?? take.error ?? found.error} />
        {match && <Progress match={match} onCancel={() => cancel.mutate(match.id)} />}
        <div className="flex items-center gap-2">
          <Select
            label="Kind of cabinet"
            className="max-w-44"
            value={kind}
            options={KINDS}
            onChange={setKind}
          />
          {begun && <WhyNot onChoose={(driver, name) => setChosen({ driver, name, family: null })} />}
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto">
          <FoundTable
            rows={found.data?.rows ?? []}
            chosen={chosen}
            busy={busy}
            onChoose={setChosen}
            onTake={onTake}
          />
        </div>
      </section>
      <aside
        aria-label="The chosen driver"
        className="flex min-h-0 flex-col gap-3 overflow-y-auto border-line border-l bg-shelf px-4 py-3"
      >
        <Tradeoff points={points.data ?? []} chosen={chosen} onChoose={setChosen} />
        {match && chosen && <Outcomes match={match} chosen={chosen} busy={busy} onTake={onTake} />}
        {!chosen && (
          <p className="text-soft">
            Choose a row or a point to see what the driver does in every kind of cabinet. Travel, air noise
            and the amplifier are within the loudness: it is the maximum clean level over the whole band.
          </p>
        )}
      </aside>
    </div>
  );
}
