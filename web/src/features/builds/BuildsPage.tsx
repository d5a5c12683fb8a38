import { type ReactNode, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { answered, api } from '../../api/client';
import { useBuilds } from '../../api/queries/builds';
import { useChange } from '../../api/queries/shared';
import { toasts } from '../../model/toasts';
import type { Build, RawBuild } from '../../schema/types';
import { Silhouette } from '../../section/Silhouette';
import { SpacePicture } from '../../section/SpacePicture';
import { useInAddress } from '../../ui/address';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { chooseFile, readJson } from '../../ui/file';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { Shell } from '../shell/Shell';
import { BuildCard } from './BuildCard';

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
            className="flex gap-2 max-sm:flex-wrap"
            onSubmit={(event) => {
              event.preventDefault();
              if (name.trim()) create.mutate(name.trim(), { onSuccess: open });
            }}
          >
            <input
              className="field max-w-64"
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
        <div className="mb-5 grid grid-cols-1 gap-3 sm:grid-cols-2">
          <Way to="/start?from=woofer" title="I have a woofer" picture={<Silhouette family="ported" />}>
            Paste its data sheet; see which box suits it and what it does.
          </Way>
          <Way
            to="/start?from=wish"
            title="I have a space and a wish"
            picture={<SpacePicture space="eighth" />}
          >
            Say in five answers how low, how loud and where; find the woofer and the box.
          </Way>
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
        {builds.isPending && <p className="text-soft">Opening the builds …</p>}
        {builds.data?.length === 0 && (
          <p className="mt-3 text-soft">
            {put ? 'Nothing is archived.' : 'There are no builds yet. Give the first one a name.'}
          </p>
        )}
        <ul className="mt-3 grid grid-cols-1 gap-3 xl:grid-cols-2">
          {builds.data?.map((build) =>
            put ? (
              <li
                key={build.id}
                className="flex items-center gap-3 rounded-[3px] border border-line bg-card px-4 py-2"
              >
                <div className="flex-1">
                  <h2 className="text-[1.143rem]">{build.name}</h2>
                  <p className="text-soft">{build.notes}</p>
                </div>
                <Button aria-label={`Bring back ${build.name}`} onClick={() => restore.mutate(build)}>
                  Bring back
                </Button>
              </li>
            ) : (
              <BuildCard key={build.id} build={build} onArchive={() => putAway(build)} />
            ),
          )}
        </ul>
      </div>
    </Shell>
  );
}

interface WayProps {
  to: string;
  title: string;
  picture: ReactNode;
  children: ReactNode;
}

/** A way in for who has no build yet. */
function Way({ to, title, picture, children }: WayProps) {
  return (
    <Link
      to={to}
      className="flex items-center gap-4 rounded-[3px] border border-oak bg-card px-4 py-3 hover:bg-rule"
    >
      <span className="shrink-0">{picture}</span>
      <span>
        <b className="block font-head text-lg leading-tight">{title}</b>
        <span className="text-soft">{children}</span>
      </span>
    </Link>
  );
}
