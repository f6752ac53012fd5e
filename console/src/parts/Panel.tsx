import { Card } from "antd";

/** A part of a page with a heading of its own. */
export function Panel(props: {
  title: React.ReactNode;
  /** Beside the heading. */
  extra?: React.ReactNode;
  /** 3 inside another panel. */
  level?: 2 | 3;
  /** It stands by itself, above or below others. */
  apart?: boolean;
  children: React.ReactNode;
}): React.ReactNode {
  const { title, extra, level = 2, apart, children } = props;
  const Heading = level === 2 ? "h2" : "h3";
  return (
    <Card className={apart ? "panel apart" : "panel"} size="small" title={<Heading>{title}</Heading>} extra={extra}>
      {children}
    </Card>
  );
}
