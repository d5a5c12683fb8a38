import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { answered, api } from '../../api/client';
import { useBuilds } from '../../api/queries/builds';
import { useChange } from '../../api/queries/shared';
import type { Build, RawBuild } from '../../api/types';
import { toasts } from '../../model/toasts';
import { useInAddress } from '../../ui/address';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { chooseFile, readJson } from '../../ui/file';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { Shell } from '../shell/Shell';

/** All builds. */
export function BuildsPage() {
  const [shelf, setShelf] = useInAddress('show', ['present', 'archive']);
  const put = shelf === 'archive';
  const builds = useBuilds(put);
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const open = (build: { id: string }) => navigate(`/builds/${build.id}`);
  const create = useChange('builds', (wanted: string) =>
    answered(
      api.PUT('/api/v1/builds/{id}', {
        params: { path: { id: crypto.randomUUID() } },
        body: { name: wanted, notes: '' },
      }),
    ),
  );
  const importFile = useChange('builds', async (file: File) =>
    answered(api.POST('/api/v1/builds/import', { body: (await readJson(file)) as RawBuild })),
  );
  const archive = useChange('builds', (build: Build) =>
    answered(api.DELETE('/api/v1/builds/{id}', { params: { path: { id: build.id } } })),
  );
  const restore = useChange('builds', (build: Build) =>
    answered(api.POST('/api/v1/builds/{id}/restore', { params: { path: { id: build.id } } })),
  );
  const putAway = (build: Build) =>
    archive.mutate(build, {
      onSuccess: () => toasts.say(`${build.name} is archived.`, () => restore.mutate(build)),
    });
  return (
    <Shell title="Builds">
      <div className="mx-auto max-w-[1180px] px-6 py-5">
        <div className="mb-4 flex flex-wrap items-center gap-2">
          <h1 className="flex-1 text-2xl">Builds</h1>
          <form
            className="flex gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (name.trim()) create.mutate(name.trim(), { onSuccess: open });
            }}
          >
            <input
              className="field w-64"
              aria-label="Name of a new build"
              placeholder="What will it be?"
              maxLength={120}
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
            <Button look="strong" type="submit" disabled={!name.trim() || create.isPending}>
              <Icon name="plus" /> New build
            </Button>
          </form>
          <Button
            onClick={() =>
              void chooseFile('.json,application/json').then(
                (file) => file && importFile.mutate(file, { onSuccess: open }),
              )
            }
          >
            <Icon name="into" /> Open a build file
          </Button>
        </div>
        <div className="mb-3 flex flex-col gap-2" aria-live="polite">
          <Message
            error={builds.error ?? create.error ?? importFile.error ?? archive.error ?? restore.error}
          />
        </div>
        <Choice
          label="Which builds"
          value={shelf}
          options={[
            ['present', 'Current'],
            ['archive', 'Archive'],
          ]}
          onChange={setShelf}
        />
        {builds.isPending && <p className="text-soft">Opening the workshop …</p>}
        {builds.data?.length === 0 && (
          <p className="mt-3 text-soft">
            {put ? 'Nothing is archived.' : 'There are no builds yet. Give the first one a name.'}
          </p>
        )}
        <ul className="mt-3 grid grid-cols-2 gap-3">
          {builds.data?.map((build) => (
            <li key={build.id} className="rule-ticks flex flex-col rounded-[3px] border border-line bg-card">
              {put ? (
                <div className="flex-1 px-4 pt-4 pb-1">
                  <About build={build} />
                </div>
              ) : (
                <Link to={`/builds/${build.id}`} className="block flex-1 px-4 pt-4 pb-1 hover:text-oak">
                  <About build={build} />
                </Link>
              )}
              <div className="flex items-center gap-2 px-4 pb-2 text-soft">
                <span className="flex-1">
                  {build.variant_count} {build.variant_count === 1 ? 'variant' : 'variants'} · changed{' '}
                  {new Date(build.updated_at).toLocaleDateString(undefined, { dateStyle: 'medium' })}
                </span>
                {put && (
                  <Button aria-label={`Bring ${build.name} back`} onClick={() => restore.mutate(build)}>
                    Bring back
                  </Button>
                )}
                {!put && (
                  <>
                    <a
                      href={`/api/v1/builds/${build.id}/build.json`}
                      download
                      aria-label={`Build file of ${build.name}`}
                      title="Build file (JSON)"
                      className="rounded-[3px] p-1.5 text-ink hover:bg-rule"
                    >
                      <Icon name="out" />
                    </a>
                    <button
                      type="button"
                      aria-label={`Archive ${build.name}`}
                      title="Archive"
                      className="rounded-[3px] p-1.5 text-ink hover:bg-rule"
                      onClick={() => putAway(build)}
                    >
                      <Icon name="box" />
                    </button>
                  </>
                )}
              </div>
            </li>
          ))}
        </ul>
      </div>
    </Shell>
  );
}

function About({ build }: { build: Build }) {
  return (
    <>
      <h2 className="text-lg">{build.name}</h2>
      <p className="min-h-10 text-soft">{build.notes}</p>
    </>
  );
}
