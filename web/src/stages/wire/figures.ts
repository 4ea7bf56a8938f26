/** The figures of the wiring as they are said. */
export const figure = (value: number): string =>
  value >= 100 || Number.isInteger(value) ? value.toFixed(0) : value.toFixed(1);

export const watts = (value: number): string => `${figure(value)} W`;
export const volts = (value: number): string => `${value.toFixed(1)} V`;
export const mbps = (value: number): string => `${figure(value)} Mbit/s`;
export const gigabytes = (value: number): string =>
  value >= 10_000 ? `${(value / 1000).toFixed(1)} TB` : `${value.toFixed(0)} GB`;
