import type { RawDesign } from '../../api/types';
import { Button } from '../../ui/Button';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { importDesign } from './design_file';

interface Props {
  failure: unknown;
  onNew: () => void;
  onAdd: (design: RawDesign) => void;
  onFailure: (error: unknown) => void;
}

/** A build without variants. */
export function StartHere({ failure, onNew, onAdd, onFailure }: Props) {
  return (
    <div className="mx-auto flex max-w-xl flex-col gap-4 p-12">
      <h2 className="text-2xl">Start with a driver</h2>
      <p>
        Choose a woofer from the library or type one in from its data sheet. Then choose a kind of cabinet:
        each school works out a box to begin with and says why. Change it from there and watch what happens.
      </p>
      <div className="flex gap-2">
        <Button look="strong" onClick={onNew}>
          <Icon name="plus" /> Choose a driver
        </Button>
        <Button onClick={() => void importDesign().then((design) => design && onAdd(design), onFailure)}>
          <Icon name="into" /> Open a design file
        </Button>
      </div>
      <Message error={failure} />
    </div>
  );
}
