export type Theme = 'day' | 'proof';

const KEY = 'rakuen.light';

export function storedTheme(): Theme {
  return localStorage.getItem(KEY) === 'proof' ? 'proof' : 'day';
}

/** Day is for the table; proof is the darker surround for judging pictures on screen. */
export function applyTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  localStorage.setItem(KEY, theme);
}
