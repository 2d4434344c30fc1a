/** Header value under which a browser saves a file by its own name, in any letters (RFC 6266, RFC 8187). */
export const attachment = (name: string): string => `attachment; filename*=UTF-8''${encodeURIComponent(name)}`;
