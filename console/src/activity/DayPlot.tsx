/** Numbers by day, as stacked bars; the same numbers stand in a table beside it. */

import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";

/** Told apart also by those who see few colours. */
const COLOURS = ["#0a6670", "#d08c27", "#7a4a8f", "#3f7d3a", "#b0413e", "#51666f", "#2f5fa8", "#8a6d3b"];

export function DayPlot(props: {
  /** What the bars are, for whoever does not see them. */
  label: string;
  /** A row a day: `day`, and a number by the name of each series. */
  rows: Record<string, number | string>[];
  series: { name: string; label: string }[];
}): React.ReactNode {
  const { label, rows, series } = props;
  return (
    <figure className="day-plot" aria-label={label}>
      <div aria-hidden>
        <ResponsiveContainer width="100%" height={240}>
          <BarChart data={rows} margin={{ top: 8, right: 28, left: 0, bottom: 0 }} accessibilityLayer={false}>
            <CartesianGrid vertical={false} stroke="#dfe7e8" />
            <XAxis dataKey="day" tickFormatter={shortDay} minTickGap={24} stroke="#46595f" />
            <YAxis allowDecimals={false} width={56} stroke="#46595f" tickFormatter={(value: number) => value.toLocaleString("en")} />
            <Tooltip labelFormatter={(day) => shortDay(String(day))} isAnimationActive={false} itemStyle={{ color: "#2b3f45" }} />
            {series.length > 1 && <Legend itemSorter={null} formatter={(said: string) => <span className="legend">{said}</span>} />}
            {series.map(({ name, label: said }, place) => (
              <Bar key={name} dataKey={name} name={said} stackId="all" fill={COLOURS[place % COLOURS.length] ?? "#0a6670"} isAnimationActive={false} maxBarSize={28} />
            ))}
          </BarChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="visually-hidden">{label}</figcaption>
    </figure>
  );
}

/** The days from one to another, both of them there, as `2027-03-01`. */
export function daysFrom(first: string, last: string): string[] {
  const days: string[] = [];
  for (let at = Date.parse(`${first}T00:00:00Z`); at <= Date.parse(`${last}T00:00:00Z`); at += 86_400_000) {
    days.push(new Date(at).toISOString().slice(0, 10));
  }
  return days;
}

function shortDay(day: string): string {
  return new Date(`${day}T00:00:00Z`).toLocaleDateString("en-GB", { day: "numeric", month: "short", timeZone: "UTC" });
}
