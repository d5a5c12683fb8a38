import { Link } from 'react-router';
import { Shell } from './Shell';

export function NotFound() {
  return (
    <Shell title="Not found">
      <h1 className="px-8 pt-8 text-2xl">Nothing here</h1>
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
