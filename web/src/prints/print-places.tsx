import { NavLink } from 'react-router';

const PLACES = [
  ['/prints', 'Waiting and made'],
  ['/prints/run', 'Run sheet'],
  ['/prints/editions', 'Editions'],
  ['/prints/orders', 'Orders'],
  ['/prints/clients', 'Clients and places'],
  ['/prints/layout', 'On the sheet'],
  ['/prints/drawer', 'Drawer and cost'],
] as const;

/** The places around the printer. */
export function PrintPlaces() {
  return (
    <nav aria-label="Around the printer" className="mb-4 flex flex-wrap gap-x-5 border-b border-line">
      {PLACES.map(([to, name]) => (
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
