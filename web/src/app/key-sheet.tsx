import { Dialog } from '../parts/dialog.tsx';
import { STEPS } from './steps.ts';
import { keysShown, useAppDispatch, useAppSelector } from './store.ts';

const KEYS: readonly (readonly [where: string, keys: readonly (readonly [key: string, does: string])[]])[] = [
  [
    'Anywhere',
    [...STEPS.map((s, i) => [String(i + 1), s.name] as const), ['?', 'this sheet'], ['d', 'darker surround, and back']],
  ],
  [
    'Lists',
    [
      ['↑ ↓', 'up and down'],
      ['t', 'lay on the table, or put back'],
      ['Enter', 'open'],
    ],
  ],
  [
    'Hands',
    [
      ['x', 'swap the hands'],
      ['l', 'take the paper into the left hand'],
      ['r', 'take it into the right hand'],
      ['n  p', 'next picture, picture before'],
    ],
  ],
  [
    'Reading a chart',
    [
      ['s', 'read the next strip'],
      ['o', 'read on by itself, and pause'],
      ['u', 'undo the last strip'],
      ['a', 'read the questioned strip again'],
      ['k', 'keep the questioned strip'],
      ['c', 'calibrate'],
      ['← →', 'look at another strip'],
    ],
  ],
  [
    'By eye',
    [
      ['← →', 'the left print, the right print'],
      ['↓', 'can’t tell'],
      ['u', 'take the last answer back'],
    ],
  ],
  [
    'Match',
    [
      ['c', 'stamp: chosen'],
      ['h', 'stamp: held'],
      ['f', 'stamp: refused'],
      ['u', 'take the last stamp back'],
      ['b', 'show the selected pair side by side'],
      ['m', 'show the marked places at print size'],
    ],
  ],
  [
    'Proof',
    [
      ['m', 'show the marked places at print size'],
      ['x', 'swap the hands'],
      ['v', 'flip: one sheet, the other'],
      ['[  ]', 'the dividing line to the left, to the right'],
      ['+  −  0', 'nearer, further, the whole picture'],
      ['arrows', 'the part that is looked at aside'],
      ['a', 'on every sheet on the table, on the selected pair'],
    ],
  ],
];

export function KeySheet() {
  const open = useAppSelector((s) => s.view.keysOpen);
  const dispatch = useAppDispatch();
  return (
    <Dialog title="Keys" open={open} onClose={() => dispatch(keysShown(false))}>
      <div className="grid grid-cols-2 gap-x-8 gap-y-5">
        {KEYS.map(([where, keys]) => (
          <section key={where}>
            <h3 className="mb-1">{where}</h3>
            <dl className="grid grid-cols-[56px_1fr] gap-y-1.5">
              {keys.map(([key, does]) => (
                <div key={key + does} className="contents">
                  <dt>
                    <kbd className="border border-edge bg-field px-1.5 font-sans">{key}</kbd>
                  </dt>
                  <dd>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
