/** @jest-environment ./web/test/dom-environment.mjs */
import type { PictureView } from '@rakuen/contract/pictures';
import { act } from 'react';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, type Answers } from '../../test/studio.tsx';
import { SeenOnSheet } from './seen-on-sheet.tsx';

const picture: PictureView = partly({
  id: 'p',
  title: 'Salt',
  widthPx: 300,
  heightPx: 200,
  commission: { light: 'D50', glass: 'none' },
});
beforeAll(() => Object.assign(URL, { createObjectURL: () => 'blob:seen', revokeObjectURL: () => undefined }));

async function seen(answers: Answers) {
  serve(answers);
  const shown = await show(<SeenOnSheet picture={picture} conditionId="c" name="Rag" px={300} />);
  await act(() => new Promise((done) => setTimeout(done, 25)));
  return { ...shown, said: () => shown.page.querySelector('figcaption')!.textContent };
}

describe('a picture as it would look on a sheet', () => {
  it('is shown, with how much of it this screen can’t show; a little of it is not worth a word', async () => {
    const image = (beyond: string) => () => new Response('image', { headers: { 'X-Beyond-Screen': beyond } });
    const { page, said, leave } = await seen(image('0.12'));
    expect(page.querySelector('img')!.alt).toBe('Salt as it would look on Rag');
    expect(said()).toMatch(/^This screen can’t show 12\s% of it\.$/);
    await leave();
    const little = await seen(image('0.001'));
    expect(little.said()).toBe('');
    await little.leave();
  });

  it('where it is refused the reason is told, and what to do', async () => {
    const { page, said, leave } = await seen(() =>
      refused(409, { message: 'Nothing was read of this sheet.', remedy: 'Read a chart first.' }),
    );
    expect(said()).toBe('It can’t be shown. Nothing was read of this sheet. Read a chart first.');
    expect(page.querySelector('img')).toBeNull();
    await leave();
  });

  it('where the line breaks that is told too', async () => {
    const { said, leave } = await seen(() => {
      throw new TypeError('the line broke');
    });
    expect(said()).toBe('It could not be fetched.');
    await leave();
  });
});
