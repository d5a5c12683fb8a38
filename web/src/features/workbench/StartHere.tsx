import { useNavigate, useParams } from 'react-router';
import { Button } from '../../ui/Button';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';

interface Props {
  failure: unknown;
  /** Whether the build has a brief. */
  briefed: boolean;
  onBrief: () => void;
  onNew: () => void;
  onImport: () => void;
}

/** A build without variants. */
export function StartHere({ failure, briefed, onBrief, onNew, onImport }: Props) {
  const navigate = useNavigate();
  const { id } = useParams();
  return (
    <div className="mx-auto flex max-w-xl flex-col gap-4 p-12">
      <h2 className="text-2xl">Start with a driver</h2>
      <p>
        Choose a woofer from the library or type one in from its data sheet. Then choose a kind of cabinet:
        each starting point is a box worked out by one method, with the reason. Change it from there and watch
        what happens.
      </p>
      <p>
        {briefed
          ? 'There is a brief: every variant will be judged by it, and the library can be searched for drivers and cabinets that reach it.'
          : 'First say how low and how loud it must play and where it must fit; every variant will be judged by that.'}
      </p>
      <div className="flex flex-wrap gap-2">
        <Button look={briefed ? 'plain' : 'strong'} onClick={onBrief}>
          {briefed ? 'Change the brief' : 'Write the brief'}
        </Button>
        {briefed && (
          <Button look="strong" onClick={() => navigate(`/builds/${id}/find`)}>
            Find drivers for it
          </Button>
        )}
        <Button onClick={onNew}>
          <Icon name="plus" /> Choose a driver
        </Button>
        <Button onClick={onImport}>
          <Icon name="into" /> Open a design file
        </Button>
      </div>
      <Message error={failure} />
    </div>
  );
}
