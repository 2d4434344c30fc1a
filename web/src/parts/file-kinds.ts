import { readingExtensions } from '@rakuen/core/formats/reading-formats';

/** Endings of files that hold readings, for file dialogs: what a file is, its content says. */
export const READING_FILES = readingExtensions().join();
/** The same with ICC profiles, whose colours can be kept as readings. */
export const READING_OR_PROFILE_FILES = `${READING_FILES},.icc,.icm`;
