const FORMAT = new Intl.DateTimeFormat("en-GB", { dateStyle: "medium", timeStyle: "short" });

/** A time as people read it, in their own zone. */
export function readable(time: string): string {
  return FORMAT.format(new Date(time));
}
