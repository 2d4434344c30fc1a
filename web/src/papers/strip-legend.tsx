import { Popover } from 'radix-ui';
import { QuietButton } from '../parts/button.tsx';
import { STRIP_LEGEND } from '../parts/strip.tsx';

export function StripLegend() {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <QuietButton>How to read a strip</QuietButton>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={6} collisionPadding={12} className="z-50 w-96 border border-edge bg-sheet p-4">
          <dl className="space-y-1.5">
            {STRIP_LEGEND.map(([part, meaning]) => (
              <div key={part}>
                <dt className="inline font-semibold">{part}: </dt>
                <dd className="inline">{meaning}.</dd>
              </div>
            ))}
          </dl>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
