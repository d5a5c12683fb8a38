// Name, notes and brief of the open build: what is kept of a build besides its variants.

import { useState } from 'react';
import { answered, api, ifMatch } from '../../api/client';
import { useChange } from '../../api/queries';
import type { Build, RawBrief } from '../../api/types';

interface Change {
  name?: string;
  brief?: RawBrief;
}

export function useBuildText(build: Build) {
  const [current, setCurrent] = useState(build);
  const change = useChange('builds', async (change: Change) => {
    const { name, notes, brief } = { ...current, ...change };
    const params = { path: { id: current.id }, header: ifMatch(current.revision) };
    setCurrent(
      await answered(api.PUT('/api/v1/builds/{id}', { params, body: { name, notes, brief: brief ?? null } })),
    );
  });
  return { current, change };
}

export type BuildText = ReturnType<typeof useBuildText>;
