/** Endings of files that hold readings, for the file dialog alone: what a file is, its content says. */
export const READING_FILES = '.txt,.cgats,.it8,.cxf,.csv,.tsv,.xml';
