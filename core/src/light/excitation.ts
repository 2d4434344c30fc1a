/**
 * Optical brightener absorbs in the near UV: share of a wavelength's light that wakes it (stilbene-like; peak and
 * width from memory (memory)).
 */
export const excitation = (nm: number): number => Math.exp(-(((nm - 372) / 24) ** 2));
