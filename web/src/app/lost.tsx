import { isRouteErrorResponse, Link, useRouteError } from 'react-router';

/** A wrong address, or a screen that broke. What was acknowledged is on the server and safe. */
export function Lost() {
  const error = useRouteError();
  const broke = error !== undefined && !isRouteErrorResponse(error);
  return (
    <main className="mx-auto max-w-[52ch] p-12">
      <h1>{broke ? 'This screen broke.' : 'There is nothing at this address.'}</h1>
      <p className="mt-3">{broke ? `What was kept is safe. The fault: ${error instanceof Error ? error.message : 'unknown'}.` : 'The link may be old, or mistyped.'}</p>
      <p className="mt-3">
        <Link to="/papers" className="underline" reloadDocument>
          Back to the papers
        </Link>
      </p>
    </main>
  );
}
