import { RakuenError } from '../app/errors.ts';

/** No file of the profile that a print condition is printed through is kept: it has none, or it was only named. */
export const noProfileFile = ({ profile, profileId }: { profile: string; profileId?: string }): RakuenError =>
  profileId || profile
    ? new RakuenError(409, `Only the name of this print condition’s profile is known: ${profile}.`, {
        remedy: 'In Readings, under Profile: import its file, write one, or choose one that is kept.',
      })
    : new RakuenError(409, 'This print condition has no profile.', {
        remedy: 'In Readings, under Profile: write one, or choose one that is kept.',
      });
