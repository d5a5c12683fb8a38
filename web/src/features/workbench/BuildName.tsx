import { Message } from '../../ui/Message';
import { TextInput } from '../../ui/TextInput';
import type { BuildText } from './build_text';

/** The build's name, changed in place. */
export function BuildName({ text: { current, change } }: { text: BuildText }) {
  return (
    <>
      <h1 className="sr-only">{current.name}</h1>
      <TextInput
        label="Name of the build"
        value={current.name}
        longest={120}
        className="w-64 border-transparent bg-transparent font-semibold hover:border-line"
        onChange={(name) => change.mutate({ name })}
      />
      <Message error={change.variables?.brief ? null : change.error} />
    </>
  );
}
