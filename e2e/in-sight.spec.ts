import { expect, expectAccessible, test } from './studio.ts';

/** The proof is drawn again within this. */
const SETTLED_MS = 2500;

/** Codes of places all over the left half of a drawing, three each. */
const leftHalf = (canvas: HTMLCanvasElement): number[] => {
  const copy = document.createElement('canvas');
  [copy.width, copy.height] = [canvas.width, canvas.height];
  const context = copy.getContext('2d')!;
  context.drawImage(canvas, 0, 0);
  const codes: number[] = [];
  for (let row = 0.1; row < 1; row += 0.1)
    for (let column = 0.05; column < 0.45; column += 0.05)
      codes.push(
        ...context.getImageData(Math.round(column * copy.width), Math.round(row * copy.height), 1, 1).data.slice(0, 3),
      );
  return codes;
};

test('picture and recipe are in sight together; the file in the right hand; mount and frame on both hands', async ({
  watched: page,
  studio,
}) => {
  for (const [width, height] of [
    [1280, 800],
    [1024, 768],
    [820, 1180],
  ]) {
    await page.setViewportSize({ width, height });
    await page.goto(`${studio.url}/proof`);
    const picture = page.getByRole('img', { name: / on Slate Baryta/ });
    const note = page.getByRole('region', { name: 'Recipe for Slate Baryta' });
    for (const part of ['Lift', 'Sharpening']) {
      await note.getByRole('button', { name: `${part} more` }).focus();
      await expect(note.getByRole('button', { name: `${part} more` })).toBeInViewport({ ratio: 1 });
      await expect(picture).toBeInViewport({ ratio: 0.95 });
    }
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  const before = page.getByRole('img', { name: / on Slate Baryta and Chalk Rag/ });
  await expect(before).not.toHaveAttribute('aria-busy', 'true');
  await page.waitForTimeout(SETTLED_MS);
  const leftBefore = await before.evaluate(leftHalf);
  await page.getByLabel('Compare with').selectOption('file');
  const both = page.getByRole('img', { name: / on Slate Baryta and the file as it is/ });
  await expect(both).not.toHaveAttribute('aria-busy', 'true');
  // What lies in the left hand is drawn as it was, whatever the right one holds.
  await page.waitForTimeout(SETTLED_MS);
  const leftAfter = await both.evaluate(leftHalf);
  expect(Math.max(...leftBefore)).toBeGreaterThan(20);
  leftAfter.forEach((code, i) => expect(Math.abs(code - leftBefore[i])).toBeLessThanOrEqual(1));
  // The same place of both: what the file holds is what the right hand shows.
  await both.hover({ position: { x: 60, y: 60 } });
  const numbers = page.getByRole('status').filter({ hasText: 'File L*' });
  await expect(numbers).toContainText('on Slate Baryta L*');
  await expect(numbers).toContainText('on the file as it is L*');
  const said = (await numbers.textContent())!;
  const [file, held] = ['File', 'on the file as it is'].map((of) =>
    new RegExp(`${of} L\\* ([\\d.−-]+), a\\* ([\\d.−-]+), b\\* ([\\d.−-]+)`)
      .exec(said)!
      .slice(1, 4)
      .map((v) => Number(v.replace('−', '-'))),
  );
  held.forEach((v, i) => expect(Math.abs(v - file[i])).toBeLessThan(0.11));
  await page.getByRole('button', { name: 'Beside each other' }).click();
  await page.getByLabel('How it hangs').selectOption('framed');
  for (const hand of [0, 1]) await expect(page.getByTestId(`hung-${hand}`)).toBeVisible();
  await expectAccessible(page);
});
