/** @jest-environment ./web/test/dom-environment.mjs */
import type { PieceInput } from '@rakuen/contract/layouts';
import { act } from 'react';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import { LaidPiece } from './laid-piece.tsx';

const PIECE: PieceInput = partly({
  name: 'Card',
  widthMm: 90,
  heightMm: 55,
  copies: 1,
  mayTurn: true,
  border: 'equal',
  borderMm: 0,
});

async function piece() {
  serve(() => []);
  const changed: object[] = [];
  const { page, leave } = await show(
    <ul>
      <LaidPiece piece={PIECE} onChange={(what) => void changed.push(what)} onAway={() => undefined} />
    </ul>,
  );
  return {
    page,
    leave,
    changed,
    write: (label: string, text: string) =>
      act(async () => {
        const { htmlFor } = [...page.querySelectorAll('label')].find((l) => l.textContent.startsWith(label))!;
        const input = document.getElementById(htmlFor) as HTMLInputElement;
        input.focus();
        input.value = text;
        input.blur();
      }),
    told: () => [...page.querySelectorAll('[role="alert"]')].map((p) => p.textContent),
  };
}

describe('a piece that is laid', () => {
  it('takes its size as a hand writes it, and whole copies', async () => {
    const at = await piece();
    await at.write('Width', '85,5');
    await at.write('Copies', '3,4');
    await at.write('Border', '0');
    expect(at.changed).toEqual([{ widthMm: 85.5 }, { copies: 3 }, { borderMm: 0 }]);
    expect(at.told()).toEqual([]);
    await at.leave();
  });

  it.each([
    ['Width', 'wide', 'From 1'],
    ['Height', '', 'From 1'],
    ['Copies', '0', 'From 1'],
    ['Border', '-2', 'From 0'],
  ])('%s: “%s” is told, and the drawing stays as it was', async (label, typed, told) => {
    const at = await piece();
    await at.write(label, typed);
    expect(at.told()).toEqual([told]);
    expect(at.changed).toEqual([]);
    await at.leave();
  });
});
