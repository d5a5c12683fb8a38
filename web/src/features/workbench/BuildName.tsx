import { useState } from 'react';
import { answered, api, ifMatch } from '../../api/client';
import { useChange } from '../../api/queries';
import type { Build } from '../../api/types';
import { Message } from '../../ui/Message';
import { TextInput } from '../../ui/TextInput';

/** The build's name, changed in place. */
export function BuildName({ build }: { build: Build }) {
  const [current, setCurrent] = useState(build);
  const rename = useChange('builds', async (name: string) => {
    const header = ifMatch(current.revision);
    const body = { name, notes: current.notes };
    const params = { path: { id: current.id }, header };
    setCurrent(await answered(api.PUT('/api/v1/builds/{id}', { params, body })));
  });
  return (
    <>
      <h1 className="sr-only">{current.name}</h1>
      <TextInput
        label="Name of the build"
        value={current.name}
        longest={120}
        className="w-64 border-transparent bg-transparent font-semibold hover:border-line"
        onChange={(name) => rename.mutate(name)}
      />
      <Message error={rename.error} />
    </>
  );
}
