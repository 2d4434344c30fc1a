import { NavLink } from 'react-router';

/** The places in the ledger. */
export function Places() {
  return (
    <nav aria-label="In the ledger" className="mb-4 flex flex-wrap gap-x-5 border-b border-line">
      {[
        ['/ledger', 'Decided and printed'],
        ['/ledger/happened', 'What happened, and the bin'],
        ['/ledger/backups', 'Backups'],
      ].map(([to, name]) => (
        <NavLink
          key={to}
          end
          to={to}
          className={({ isActive }) =>
            `-mb-px min-h-8 border-b-2 py-1 ${isActive ? 'border-ink font-semibold' : 'border-transparent hover:border-edge'}`
          }
        >
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
