/** Figures as people read them. */

export function count(value: number): string {
  return value.toLocaleString("en");
}

export function counted(value: number, one: string, many = `${one}s`): string {
  return `${count(value)} ${value === 1 ? one : many}`;
}

export function megabytes(bytes: number): string {
  return `${(bytes / 1e6).toLocaleString("en", { minimumFractionDigits: 1, maximumFractionDigits: 1 })} MB`;
}

/** The size of a file: of a small one in bytes, since 0.0 MB says nothing. */
export function fileSize(bytes: number): string {
  return bytes < 100_000 ? counted(bytes, "byte") : megabytes(bytes);
}

/** A share of a whole, such as `1.2 %`; what is there but hardly is never said to be nothing. */
export function share(part: number, whole: number): string {
  if (!whole || !part) return "0 %";
  const percent = (100 * part) / whole;
  return percent < 0.05 ? "under 0.1 %" : `${percent.toFixed(1)} %`;
}

export function duration(seconds: number): string {
  const whole = Math.max(1, Math.round(seconds));
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)} min ${whole % 60} s`;
}
