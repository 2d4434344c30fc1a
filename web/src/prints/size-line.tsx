import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { PrintSettle, PrintView } from '@rakuen/contract/prints';
import type { BoxView } from '@rakuen/contract/stock';
import { boxRefusal } from '@rakuen/core/layout/box-for';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { useBoxesQuery } from './print-api.ts';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';

/** How large, how many, from which box. */
export function SizeLine({
  print,
  picture,
  condition,
  onChange,
}: {
  print: PrintView;
  picture: PictureView;
  condition: ConditionHead;
  onChange: (change: PrintSettle) => void;
}) {
  const [open, setOpen] = useState(false);
  const { data: boxes = [] } = useBoxesQuery();
  const own = boxes.filter((b) => b.paperId === condition.paperId);
  const box = own.find((b) => b.id === print.boxId);
  if (!open) return <AsSet {...{ print, box, counted: own.length > 0, onOpen: () => setOpen(true), onChange }} />;
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        const form = new FormData(e.currentTarget);
        const widthMm = decimal(String(form.get('width')));
        const copies = Math.round(decimal(String(form.get('copies'))));
        const boxId = form.get('box');
        if (!(widthMm > 0) || !(copies > 0)) return;
        onChange({
          widthMm,
          heightMm: Math.round(((widthMm * picture.heightPx) / picture.widthPx) * 10) / 10,
          copies,
          ...(boxId ? { boxId: String(boxId) } : {}),
        });
        setOpen(false);
      }}
    >
      <TextField
        label="Width"
        unit="mm"
        name="width"
        required
        {...NUMBER_TYPED}
        defaultValue={print.widthMm}
        autoFocus
        className="w-28"
      />
      <TextField label="Copies" name="copies" required {...NUMBER_TYPED} defaultValue={print.copies} className="w-24" />
      {own.length > 0 && (
        <ChoiceField
          label="From the box"
          name="box"
          defaultValue={print.boxId ?? ''}
          options={[
            ['', 'not set'],
            ...own.map(
              (b) =>
                [
                  b.id,
                  `${b.label}${b.batch ? `, ${b.batch}` : ''} (${formatNumber(Math.max(0, b.left), 0)} left${boxRefusal(b, print, print.copies)?.why === 'too small' ? ', too small' : ''})`,
                ] as const,
            ),
          ]}
        />
      )}
      <Button type="submit">Save size and box</Button>
      <QuietButton onClick={() => setOpen(false)}>Cancel</QuietButton>
    </form>
  );
}

/** Size, copies and box as they are set. */
function AsSet({
  print,
  box,
  counted,
  onOpen,
  onChange,
}: {
  print: PrintView;
  box?: BoxView;
  /** There are boxes to choose from. */
  counted: boolean;
  onOpen: () => void;
  onChange: (change: PrintSettle) => void;
}) {
  const left = box && formatNumber(Math.max(0, box.left), 0);
  return (
    <p>
      <QuietButton className="-ml-1.5" onClick={onOpen}>
        {formatNumber(print.widthMm, 0)} × {formatNumber(print.heightMm, 0)} mm,{' '}
        {print.copies === 1 ? 'one copy' : `${print.copies} copies`}
      </QuietButton>
      <span className="text-[13px] text-quiet">
        {box
          ? ` from ${box.label}${box.batch ? `, ${box.batch}` : ''}: ${left} ${box.kind === 'sheet' ? 'sheets' : 'mm'} left`
          : counted
            ? ' box not set'
            : ''}
      </span>
      {box && print.carriedFrom.box && (
        <QuietButton onClick={() => onChange({ boxId: box.id })}>
          Box is right (proposed from {print.carriedFrom.box})
        </QuietButton>
      )}
    </p>
  );
}
