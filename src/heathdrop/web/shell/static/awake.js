// While something is counted the screen stays on and the hand feels the second, where the browser can.
let lock = null; // what was asked for and not let go of; a promise, for a short count may end before it is granted
let wanted = false;

function asked() {
  const asking = navigator.wakeLock.request("screen");
  // The browser lets go of it by itself when the page is hidden.
  asking.then((held) => held.addEventListener("release", () => { if (lock === asking) { lock = null; } }), () => {});
  return asking;
}

export async function stayAwake(on) {
  wanted = on;
  try {
    if (on && navigator.wakeLock) {
      lock = lock || asked();
      await lock;
    }
    if (!on && lock) {
      const held = lock;
      lock = null;
      await (await held).release();
    }
  } catch (_) {
    // A page that is not a secure context, or a battery that is low: the screen keeps its own time.
    lock = null;
  }
}

document.addEventListener("visibilitychange", () => { if (wanted && !document.hidden) { stayAwake(true); } });

export function buzz(length) {
  if (navigator.vibrate && navigator.userActivation?.hasBeenActive !== false) { navigator.vibrate(length); }
}
