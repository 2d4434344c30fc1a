import type { UseFormRegisterReturn } from 'react-hook-form';
import { GLASSES } from '@rakuen/core/light/glass';
import { useLight } from '../compare/use-light.ts';
import { ChoiceField, TextField } from '../parts/form.tsx';

/** Light, glass and illuminance of a place. @param unset what is said where one of them is left open */
export function LightThere({
  light,
  glass,
  lux,
  luxError,
  unset,
}: Record<'light' | 'glass' | 'lux', UseFormRegisterReturn> & { luxError?: string; unset: string }) {
  const { lights } = useLight();
  return (
    <>
      <ChoiceField
        label="Light there"
        options={[['', unset], ...lights.map((l) => [l.key, l.name] as const)]}
        {...light}
      />
      <ChoiceField
        label="Glass there"
        options={[['', unset], ...GLASSES.map((g) => [g.key, g.name] as const)]}
        {...glass}
      />
      <TextField
        label="Illuminance there"
        unit={`lx (empty: ${unset})`}
        className="col-span-2"
        inputMode="decimal"
        error={luxError}
        {...lux}
      />
    </>
  );
}
