import { asThree } from '@rakuen/core/colour/three';
import { spaceProfile } from '@rakuen/core/formats/icc/space-write';
import { WORKING_SPACES } from '@rakuen/core/gamut/working-spaces';
import { readFileSync } from 'node:fs';
import { deltaE2000, deltaE76 } from '@rakuen/core/colour/difference';
import { ADOBE_RGB_1998, rgbToLab, SRGB } from '@rakuen/core/colour/rgb-space';
import { labToXyz } from '@rakuen/core/colour/lab';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import type { Lab, Rgb } from '@rakuen/core/colour/types';
import { seededRandom } from '@rakuen/core/random';
import { labsOf, openProfile, ProfileError, srgbProfile } from '@rakuen/server/colour-management/lcms';
import { profileGamut } from '@rakuen/server/colour-management/profile-gamut';
import { cmykProfile } from './cmyk-profile.ts';
import { fixture } from './rakuen.ts';

const random = seededRandom(11);
const colours = Array.from({ length: 500 }, (): Rgb => [random(), random(), random()]);

describe('LittleCMS as the reference', () => {
  it.each([
    ['sRGB.icc', SRGB],
    ['compatibleWithAdobeRGB1998.icc', ADOBE_RGB_1998],
  ] as const)('%s: our own matrices agree with the profile to ΔE00 0.05 on 500 colours', async (file, space) => {
    const profile = await openProfile(readFileSync(fixture(file)));
    const worst = Math.max(
      ...labsOf(
        profile,
        colours.map((c) => [...c]),
      ).map((lab, i) => deltaE2000(lab, rgbToLab(space, colours[i]))),
    );
    profile.close();
    expect(worst).toBeLessThan(0.05);
  });

  it('8 bits, 16 bits and floats of a colour are the same colour', async () => {
    const profile = await srgbProfile();
    const eight = Uint8Array.from([200, 100, 50]);
    const at = (pixels: Uint8Array | Uint16Array | Float32Array) => asThree([...profile.toLab(pixels)]);
    expect(deltaE76(at(eight), at(Uint16Array.from(eight, (v) => v * 257)))).toBeLessThan(0.02);
    expect(deltaE76(at(eight), at(Float32Array.from(eight, (v) => v / 255)))).toBeLessThan(0.02);
    profile.close();
  });

  it('a printer profile read absolutely gives the paper’s white and its colours on that white', async () => {
    const white: Lab = [93, 1, 5];
    const ink = (c: number, m: number, y: number, k: number): Lab => [
      100 - 25 * c - 30 * m - 5 * y - 30 * k,
      50 * (m - c) * (1 - k),
      60 * (y - (c + m) / 2) * (1 - k),
    ];
    const bytes = cmykProfile(ink, labToXyz(white));
    const [absolute, relative] = [await openProfile(bytes, true), await openProfile(bytes)];
    const probes = [
      [0, 0, 0, 0],
      [1, 0, 0, 0],
      [0, 1, 1, 0],
      [0.5, 0.25, 0, 0.5],
    ];
    const onPaper = absoluteOnWhite(white);
    labsOf(relative, probes).forEach((lab, i) =>
      expect(deltaE76(lab, ink(...(probes[i] as [number, number, number, number])))).toBeLessThan(0.2),
    );
    labsOf(absolute, probes).forEach((lab, i) =>
      expect(deltaE76(lab, onPaper(ink(...(probes[i] as [number, number, number, number]))))).toBeLessThan(0.3),
    );
    const gamut = profileGamut(absolute);
    expect(deltaE76(gamut.white, white)).toBeLessThan(0.2);
    expect(gamut.method).toBe('modified hull');
    absolute.close();
    relative.close();
  });

  it.each([
    ['too short', Buffer.alloc(60)],
    ['without its signature', Buffer.alloc(400)],
    [
      'with a broken tag table',
      (() => {
        const b = Buffer.alloc(400, 0x5a);
        b.writeUInt32BE(400, 0);
        b.write('acsp', 36, 'latin1');
        return b;
      })(),
    ],
    ['cut short', readFileSync(fixture('sRGB.icc')).subarray(0, 300)],
  ])('a profile %s is refused in words', async (_, bytes) => {
    await expect(
      (async () => {
        const profile = await openProfile(bytes);
        profile.toLab(new Uint8Array(profile.channels));
      })(),
    ).rejects.toThrow(ProfileError);
  });
});

describe('a working space written as a profile', () => {
  it.each(Object.values(WORKING_SPACES))('$name: LittleCMS sees the colours its standard gives', async (space) => {
    const profile = await openProfile(spaceProfile(space));
    expect(profile.space).toBe('RGB');
    const next = seededRandom(7);
    const colours = Array.from({ length: 300 }, () => [next(), next(), next()] as const);
    labsOf(profile, colours).forEach((lab, i) => {
      const own = rgbToLab(space, colours[i]);
      // Colours no eye can see have no ΔE00 worth the name.
      if (own.every((v, c) => Math.abs(v) < (c === 0 ? 100 : 128))) expect(deltaE2000(lab, own)).toBeLessThan(0.1);
    });
    profile.close();
  });
});
