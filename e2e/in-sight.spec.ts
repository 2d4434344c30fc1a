import { expect, expectAccessible, test } from './studio.ts';

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
  await page.getByLabel('Compare with').selectOption('file');
  const both = page.getByRole('img', { name: / on Slate Baryta and the file as it is/ });
  await expect(both).not.toHaveAttribute('aria-busy', 'true');
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
