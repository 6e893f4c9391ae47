// While something is counted the screen stays on and the hand feels the second, where the browser can.
let lock = null;

export async function stayAwake(on) {
  try {
    if (on && navigator.wakeLock) { lock = lock || await navigator.wakeLock.request("screen"); }
    if (!on && lock) { await lock.release(); lock = null; }
  } catch (_) {
    // A page that is not a secure context, or a battery that is low: the screen keeps its own time.
    lock = null;
  }
}

export function buzz(length) {
  if (navigator.vibrate && navigator.userActivation?.hasBeenActive !== false) { navigator.vibrate(length); }
}
