import type { CommissionedMany, CommissionForMany, PictureChange, PictureView } from '@rakuen/contract/pictures';
import type { LaidView } from '@rakuen/contract/proofs';
import type { PackedSheet } from '@rakuen/core/characterisation/packed';
import type { Part } from '@rakuen/core/proof/part';
import { api, from } from '../api/api.ts';

/** Where a print is looked at: keys of a light and a glass. */
export interface Where {
  readonly light: string;
  readonly glass: string;
}

/** What a hand says of a picture, and pictures on sheets. */
export const pictureApi = api.injectEndpoints({
  endpoints: (build) => ({
    changePicture: build.mutation<PictureView, { id: string; revision: number } & PictureChange>({
      query: ({ id, revision, ...body }) => ({
        url: `pictures/${id}`,
        method: 'PATCH',
        body,
        headers: from(revision),
      }),
      invalidatesTags: ['pictures', 'matches', 'ledger'],
    }),
    commissionMany: build.mutation<CommissionedMany, CommissionForMany>({
      query: (body) => ({ url: 'pictures/commissions', method: 'PUT', body }),
      invalidatesTags: ['pictures', 'matches', 'ledger'],
    }),
    laid: build.query<LaidView, { conditionId: string; rendering?: string } & Where>({
      query: ({ conditionId, ...params }) => ({ url: `conditions/${conditionId}/laid`, params }),
      providesTags: ['matches'],
    }),
  }),
});

export const { useChangePictureMutation, useCommissionManyMutation, useLaidQuery } = pictureApi;

/** How a picture is drawn on a sheet. */
export interface DrawnOn extends Where {
  /** Longer side of the image, pixels. */
  readonly px: number;
  /** A saved recipe it is printed by. */
  readonly recipe?: string;
  readonly revision?: number;
  /** The whole where absent. */
  readonly part?: Part;
}

const inAddress = (values: Readonly<Record<string, string | number | undefined>>): string =>
  new URLSearchParams(
    Object.entries(values).flatMap(([key, v]) => (v === undefined ? [] : [[key, String(v)]])),
  ).toString();

/** Address of a picture as it looks on a sheet. */
export const onSheetUrl = (
  pictureId: string,
  conditionId: string,
  { light, glass, px, recipe, revision, part }: DrawnOn,
): string =>
  `/api/pictures/${pictureId}/on/${conditionId}?${inAddress({ light, glass, px, recipe, revision, ...part })}`;

/** Address of a part of a picture as its file has it. */
export const cropUrl = (pictureId: string, part: Part, px: number): string =>
  `/api/pictures/${pictureId}/crop?${inAddress({ px, ...part })}`;

/** 16-bit whole numbers of a packed lattice. */
export function latticeOf({ lab }: PackedSheet): Int16Array {
  const bytes = Uint8Array.from(atob(lab), (c) => c.charCodeAt(0));
  return new Int16Array(bytes.buffer);
}
