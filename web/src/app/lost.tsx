import { Link, useRouteError } from 'react-router';

/** A wrong address. */
export function Lost() {
  return <Notice title="There is nothing at this address.">The link may be old, or mistyped.</Notice>;
}

/** A screen that broke. What was acknowledged is on the server and safe. */
export function Broken() {
  const error = useRouteError();
  return (
    <main>
      <Notice title="This screen broke.">
        What was kept is safe. The fault: {error instanceof Error ? error.message : 'unknown'}.
      </Notice>
    </main>
  );
}

function Notice({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <div className="mx-auto max-w-[52ch] p-12">
      <h1>{title}</h1>
      <p className="mt-3">{children}</p>
      <p className="mt-3">
        <Link to="/papers" className="underline" reloadDocument>
          Back to the papers
        </Link>
      </p>
    </div>
  );
}
