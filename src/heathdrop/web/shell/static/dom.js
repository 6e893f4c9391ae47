// What every script shares: finding things, the form of the sheet, the browser's own store.
export const by = (id) => document.getElementById(id);

export const form = () => by("state");

/** Text kept in this browser, or null where nothing may be kept. */
export function recall(key) {
  try {
    return localStorage.getItem(key);
  } catch (_) {
    return null;
  }
}

export function remember(key, text) {
  try {
    localStorage.setItem(key, text);
  } catch (_) {
    // Private browsing: it lasts as long as the page.
  }
}
