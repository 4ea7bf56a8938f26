/** What is wished of a computed picture that lies beside or under a real one, as text: no grid, nothing blurred by moving. */
export const computedWish = (width: number, night = false): string =>
  JSON.stringify({
    window: { whole: { width } },
    light: night ? { night: { stops: 0, exposed: null } } : "day",
    grid: false,
    shutter_s: 0,
  });
