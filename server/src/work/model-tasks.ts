import type { MessagePort } from 'node:worker_threads';
import { rankRelatives } from '@rakuen/core/characterisation/choose-relative';
import { CONTROL_STRIP } from '@rakuen/core/characterisation/control-strip';
import { ENOUGH_PATCHES, fitPrint, ModelFault, type FittedPrint } from '@rakuen/core/characterisation/fitted-print';
import { inverter } from '@rakuen/core/characterisation/inverse';
import { makeProfile, type ProfileSettings } from '@rakuen/core/characterisation/make-profile';
import { expandPrint } from '@rakuen/core/characterisation/print-model';
import { samplesOf } from '@rakuen/core/characterisation/print-samples';
import type { ProfileCheck } from '@rakuen/core/characterisation/profile-check';
import { relativePrint } from '@rakuen/core/characterisation/relative-print';
import { compensated, type RenderingKey } from '@rakuen/core/characterisation/renderings';
import { whichNext } from '@rakuen/core/characterisation/which-next';
import { labAt } from '@rakuen/core/characterisation/lattice';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import type { Lab, Rgb } from '@rakuen/core/colour/types';
import { mistakenDevices, mistakenOrder, withOtherBlack } from '@rakuen/core/proof/strip-mistakes';
import { offInWords, recognise, whileWet, type Hypothesis, type Recognised } from '@rakuen/core/proof/mistakes';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { FormatError } from '@rakuen/core/formats/format-error';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import type { Reading } from '@rakuen/core/measurement/reading';
import { withProfileId } from '../colour-management/profile-id.ts';
import { heldAgainst } from '../colour-management/held-against.ts';
import { labsOf, openProfile, ProfileError, srgbProfile, type OpenProfile } from '../colour-management/lcms.ts';
import { profileSolid } from './sheet-task.ts';
import { readSource, type ReadingSource } from './tasks.ts';

/** Faults of what was read are answers; see the worker. */
const said = async <T>(work: () => Promise<T> | T): Promise<T> => {
  try {
    return await work();
  } catch (error) {
    if (error instanceof ModelFault)
      throw new FormatError({ message: error.message, remedy: 'Read more of the chart, or choose another set.' });
    if (error instanceof ProfileError)
      throw new FormatError({ message: error.message, remedy: 'Choose another profile, or export it again.' });
    throw error;
  }
};

const readAll = async (sources: readonly ReadingSource[]): Promise<Reading[]> =>
  Promise.all(sources.map(async (s) => (await readSource(s)).reading));

/** Computes the model of a print condition; few patches begin from the relative that explains them best. */
export const fitPrintOf = ({ sources, relatives, port }: LearnTask): Promise<FittedPrint> =>
  said(async () => {
    const readings = await readAll(sources);
    const known = relatives.map(({ fitted, mismatches }) => ({
      relative: { fitted, model: expandPrint(fitted) },
      mismatches,
    }));
    const ranked = known.length > 0 ? rankRelatives(readings, known) : [];
    const fitted = fitPrint(readings, ranked[0] && known[ranked[0].index].relative, (share) => port.postMessage(share));
    return { ...fitted, relatives: ranked.map(({ index, deltaE00 }) => ({ id: relatives[index].id, deltaE00 })) };
  });

export interface LearnTask {
  readonly sources: readonly ReadingSource[];
  /** Well-known prints it may begin from. */
  readonly relatives: readonly { readonly id: string; readonly mismatches: number; readonly fitted: FittedPrint }[];
  /** Where progress 0–1 is posted. */
  readonly port: MessagePort;
}

export interface ProfileTask {
  readonly fitted: FittedPrint;
  readonly sources: readonly ReadingSource[];
  readonly settings: ProfileSettings;
  readonly words: { readonly description: string; readonly matt: boolean };
  readonly port: MessagePort;
}

/** A profile, and what it looks like as a solid. */
export const makeProfileOf = ({ fitted, sources, settings, words, port }: ProfileTask) =>
  said(async (): Promise<{ bytes: Uint8Array; volume: number; mesh: GamutMesh }> => {
    const { reading } = samplesOf(await readAll(sources));
    const made = makeProfile(
      expandPrint(fitted),
      settings,
      {
        ...words,
        licence: 'Made from readings of the owner’s own prints; the owner decides on its use.',
        createdAt: new Date(),
        readings: writeCgats(reading),
      },
      (share) => port.postMessage(share),
    );
    const bytes = withProfileId(made);
    const { volume, mesh } = await profileSolid({ bytes });
    return { bytes, volume, mesh };
  });

export async function through<T>(bytes: Uint8Array, absolute: boolean, work: (profile: OpenProfile) => T): Promise<T> {
  const profile = await openProfile(bytes, absolute);
  try {
    return work(profile);
  } finally {
    profile.close();
  }
}

/** Another print condition of the same paper in the same printer: what the strip would read like there. */
export interface OtherSetting {
  readonly which: string;
  readonly fitted: FittedPrint;
}

/** Another box of the paper, as it was read in this print condition. */
export interface OtherBox {
  readonly which: string;
  readonly source: ReadingSource;
}

export interface HeldCheck extends ProfileCheck {
  /** What may have happened, the likeliest first; absent where too little was read. */
  readonly recognised?: Recognised;
  /** How kinds of colours came out. */
  readonly off: readonly string[];
}

/** Readings of a strip held against the profile it was printed through, and what may have gone wrong on the way. */
export const checkProfileOf = (task: {
  profile: Uint8Array;
  source: ReadingSource;
  others: readonly OtherSetting[];
  boxes: readonly OtherBox[];
}): Promise<HeldCheck> => said(async () => checkAgainst({ ...task, reading: (await readSource(task.source)).reading }));

/** The same, once the readings were read. @throws FormatError where they can't be held against it */
export const checkAgainst = (task: {
  profile: Uint8Array;
  reading: Reading;
  others: readonly OtherSetting[];
  boxes: readonly OtherBox[];
}): Promise<HeldCheck> =>
  said(async () => {
    const { reading } = task;
    // What was read under another measurement condition would differ by the brightener alone: such models are left out below.
    const check = await through(task.profile, true, (profile) => heldAgainst(profile, reading));
    const patches = reading.patches.filter((p) => p.device);
    const read = patches.map((p) => p.lab);
    const devices = patches.map((p) => p.device!);
    const promised = await through(task.profile, true, (profile) => labsOf(profile, devices));
    return {
      ...check,
      recognised:
        patches.length < FEWEST_TO_RECOGNISE
          ? undefined
          : recognise(read, [
              ...(await hypothesesOf(
                { ...task, others: task.others.filter((o) => o.fitted.condition === reading.condition) },
                devices,
                promised,
              )),
              // A scan is placed by its marks; an instrument can be led over a strip the wrong way.
              ...mistakenOrder(promised, lightest(promised)),
            ]),
      off: offInWords(read, promised),
    };
  });

const lightest = (labs: readonly Lab[]): Lab => labs.reduce((light, lab) => (lab[0] > light[0] ? lab : light));

/** Fewer patches tell no mistake from another. */
export const FEWEST_TO_RECOGNISE = 12;

/** Mean ΔE00 from what the profile promises beyond which a box is another than the one it was made from (our own choice). */
const ANOTHER_BOX = 0.6;

/**
 * What the strip would read like if one thing or another had gone wrong; for printers that are driven in RGB.
 * @param rendering by which it was meant to be sent
 */
export async function hypothesesOf(
  { profile, others, boxes }: { profile: Uint8Array; others: readonly OtherSetting[]; boxes: readonly OtherBox[] },
  devices: readonly (readonly number[])[],
  promised: readonly Lab[],
  rendering: RenderingKey = 'relative',
): Promise<Hypothesis[]> {
  const flat = (labs: readonly Lab[]) => Float32Array.from(labs.flat());
  const triples = (values: Float32Array) =>
    Array.from({ length: values.length / 3 }, (_, i): Rgb => [values[i * 3], values[i * 3 + 1], values[i * 3 + 2]]);
  const back = (sent: readonly Rgb[]) => through(profile, true, (p) => labsOf(p, sent));
  const base: Hypothesis[] = [{ mistake: 'as intended', labs: promised }];
  if (devices[0].length !== 3) return base;
  const [white] = await back([[1, 1, 1]]);
  const relative = await openProfile(profile);
  try {
    // What was meant for one rendering, sent by the other.
    const bent = rendering === 'perceptual' || rendering === 'saturation';
    const other = bent ? 'relative' : 'perceptual';
    const [intended, sender] = [
      await openProfile(profile, bent ? rendering : false),
      await openProfile(profile, other),
    ];
    try {
      const sent = triples(sender.fromLab(flat(labsOf(intended, devices))));
      base.push({ mistake: 'rendering', which: other, labs: await back(sent) });
    } finally {
      intended.close();
      sender.close();
    }
    const screen = await srgbProfile();
    try {
      const twice = triples(relative.fromLab(flat(labsOf(screen, devices))));
      base.push({ mistake: 'doubled', labs: await back(twice) });
      // The colours of the file, sent as they stand: black compensation, which the strip went through, is taken back.
      const blackL = Math.max(0, labsOf(relative, [[0, 0, 0]])[0][0]);
      const asFile = labsOf(relative, devices).map(compensated(blackL, 0));
      base.push({ mistake: 'no profile', labs: await back(triples(screen.fromLab(flat(asFile)))) });
    } finally {
      screen.close();
    }
  } finally {
    relative.close();
  }
  if (rendering !== 'absolute') {
    const absolute = await openProfile(profile, true);
    try {
      const relativeAims = await through(profile, false, (p) => labsOf(p, devices));
      const sent = triples(absolute.fromLab(flat(relativeAims)));
      base.push({ mistake: 'rendering', which: 'absolute', labs: await back(sent) });
    } finally {
      absolute.close();
    }
  }
  const rgbs = devices.map((d): Rgb => [d[0], d[1], d[2]]);
  for (const { mistake, which, devices: sent } of mistakenDevices(rgbs))
    base.push({ mistake, which, labs: await back(sent) });
  base.push({ mistake: 'black ink', labs: withOtherBlack(promised, white) });
  const boxed: Hypothesis[] = [];
  for (const { which, source } of boxes) {
    const { reading } = await readSource(source);
    // A few patches are no box: what they do not hold would be guessed.
    if (reading.deviceSpace !== 'RGB' || reading.patches.length < ENOUGH_PATCHES) continue;
    const { labs } = expandPrint(fitPrint([reading]));
    const there = devices.map((d) => labAt(labs, d));
    const apart = there.reduce((sum, lab, i) => sum + deltaE2000(lab, promised[i]), 0) / there.length;
    // The box the profile was made from reads as it promises: that is no mistake.
    if (apart > ANOTHER_BOX) boxed.push({ mistake: 'batch', which, labs: there });
  }
  const models = others.map(({ which, fitted }) => ({ which, labs: expandPrint(fitted).labs }));
  return [
    ...base,
    { mistake: 'wet', labs: whileWet(promised, white) },
    ...boxed,
    ...models.map(({ which, labs }): Hypothesis => ({
      mistake: 'media setting',
      which,
      labs: devices.map((d) => labAt(labs, d)),
    })),
  ];
}

/** What a profile sends for the colours of the control strip, black compensated. @throws FormatError for a profile that is not of RGB */
export const stripThrough = ({ profile: bytes }: { profile: Uint8Array }): Promise<Rgb[]> =>
  said(() =>
    through(bytes, false, (profile) => {
      if (profile.space !== 'RGB')
        throw new ProfileError(`The profile is for ${profile.space}; strips are laid out for printers driven in RGB.`);
      const [black] = labsOf(profile, [[0, 0, 0]]);
      const aim = compensated(0, Math.max(0, black[0]));
      const sent = profile.fromLab(Float32Array.from(CONTROL_STRIP.flatMap((c) => aim(c.lab))));
      return CONTROL_STRIP.map((_, i): Rgb => [sent[i * 3], sent[i * 3 + 1], sent[i * 3 + 2]]);
    }),
  );

/** Colours of a picture that are looked for at the printer: the greatest of its cells. */
const MOST_WANTED = 160;

/** The patches that would help the pictures on the table most. @param cells L*, a*, b*, share: of each picture */
export const nextPatches = (task: {
  fitted: FittedPrint;
  sources: readonly ReadingSource[];
  cells: readonly Float32Array[];
  count: number;
}): Promise<Rgb[]> =>
  said(async () => {
    const { samples } = samplesOf(await readAll(task.sources));
    const print = relativePrint(expandPrint(task.fitted).labs);
    const send = inverter(print.lattice, print.reach);
    const aim = compensated(0, print.blackL);
    const wanted = task.cells.flatMap((cells) =>
      Array.from({ length: cells.length / 4 }, (_, i) => ({ at: i * 4, share: cells[i * 4 + 3] }))
        .sort((p, q) => q.share - p.share)
        .slice(0, Math.ceil(MOST_WANTED / task.cells.length))
        .map(({ at, share }) => ({
          device: send(aim([cells[at], cells[at + 1], cells[at + 2]])).device,
          weight: share / task.cells.length,
        })),
    );
    return whichNext(
      task.fitted,
      samples.map((s) => s.device),
      wanted,
      task.count,
    );
  });
