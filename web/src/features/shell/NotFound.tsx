import { Link } from 'react-router';
import { Shell } from './Shell';

export function NotFound() {
  return (
    <Shell title="Not found">
      <p className="p-8">
        There is nothing at this address.{' '}
        <Link to="/" className="underline">
          Go to the builds
        </Link>
        .
      </p>
    </Shell>
  );
}
