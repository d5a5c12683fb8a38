import { TextInput } from '../../ui/TextInput';

/** The build's name, changed in place. */
export function BuildName({ name, onChange }: { name: string; onChange: (name: string) => void }) {
  return (
    <>
      <h1 className="sr-only">{name}</h1>
      <TextInput
        label="Name of the build"
        value={name}
        longest={120}
        className="w-64 border-transparent bg-transparent font-semibold hover:border-line"
        onChange={onChange}
      />
    </>
  );
}
