import {
  useId,
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from 'react';

const BOX =
  'w-full min-h-8 rounded-[3px] border border-edge bg-field px-2 py-1 text-ink aria-invalid:border-2 aria-invalid:border-ink';

interface Labelled {
  label: string;
  /** Unit or note after the label. */
  unit?: string;
  error?: string;
  className?: string;
  /** It is marked before anything is sent that this can't be left out. */
  needed?: boolean;
}

function Field({
  label,
  unit,
  error,
  id,
  className = '',
  needed,
  children,
}: Labelled & { id: string; children: ReactNode }) {
  return (
    <div className={className}>
      <div className="mb-0.5 flex items-baseline justify-between gap-2">
        <label htmlFor={id}>
          {label}
          {unit && <span className="text-quiet"> {unit}</span>}
        </label>
        {needed && (
          <span aria-hidden className="text-[11px] text-quiet">
            needed
          </span>
        )}
      </div>
      {children}
      {error && (
        <p id={`${id}-error`} role="alert" className="mt-0.5 font-semibold">
          {error}
        </p>
      )}
    </div>
  );
}

type Box<E, A> = Omit<A, 'className'> & Labelled & { ref?: Ref<E> };

export function TextField({
  label,
  unit,
  error,
  className,
  needed,
  ...rest
}: Box<HTMLInputElement, InputHTMLAttributes<HTMLInputElement>>) {
  const id = useId();
  return (
    <Field {...{ label, unit, error, className, needed, id }}>
      <input
        id={id}
        aria-required={needed}
        className={BOX}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-error` : undefined}
        {...rest}
      />
    </Field>
  );
}

export function AreaField({
  label,
  unit,
  error,
  className,
  ...rest
}: Box<HTMLTextAreaElement, TextareaHTMLAttributes<HTMLTextAreaElement>>) {
  const id = useId();
  return (
    <Field {...{ label, unit, error, className, id }}>
      <textarea
        id={id}
        rows={2}
        className={BOX}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-error` : undefined}
        {...rest}
      />
    </Field>
  );
}

export function ChoiceField({
  label,
  unit,
  error,
  className,
  options,
  ...rest
}: Box<HTMLSelectElement, SelectHTMLAttributes<HTMLSelectElement>> & {
  options: readonly (readonly [value: string, name: string])[];
}) {
  const id = useId();
  return (
    <Field {...{ label, unit, error, className, id }}>
      <select id={id} className={BOX} {...rest}>
        {options.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </Field>
  );
}

export const named = (values: readonly string[]): (readonly [string, string])[] => values.map((v) => [v, v] as const);

export function TickField({
  label,
  className = '',
  ...rest
}: Omit<InputHTMLAttributes<HTMLInputElement>, 'type'> & { label: string; ref?: Ref<HTMLInputElement> }) {
  return (
    <label className={`flex min-h-8 items-center gap-2 ${className}`}>
      <input type="checkbox" className="size-4 accent-ink" {...rest} />
      {label}
    </label>
  );
}
