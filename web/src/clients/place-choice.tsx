import type { ClientView, PlaceView } from '@rakuen/contract/clients';
import { ChoiceField } from '../parts/form.tsx';
import { useClientsQuery, usePlacesQuery } from './client-api.ts';

/** Takes light, glass and illuminance over from a place; nothing is drawn while no place is entered. */
export function PlaceChoice({
  className,
  onChoose,
}: {
  className?: string;
  onChoose: (place: PlaceView, client?: ClientView) => void;
}) {
  const { data: places = [] } = usePlacesQuery();
  const { data: clients = [] } = useClientsQuery();
  const clientOf = (p: PlaceView) => clients.find((c) => c.id === p.clientId);
  if (places.length === 0) return null;
  return (
    <ChoiceField
      label="Fill in from a place"
      className={className}
      options={[
        ['', 'choose'],
        ...places.map((p) => [p.id, [clientOf(p)?.name, p.name].filter(Boolean).join(', ')] as const),
      ]}
      defaultValue=""
      onChange={(e) => {
        const place = places.find((p) => p.id === e.target.value);
        if (place) onChoose(place, clientOf(place));
      }}
    />
  );
}
