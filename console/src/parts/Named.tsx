/** What people call a thing, with its key small behind it for those who need it. */
export function Named({ label, name }: { label: string | undefined; name: string }): React.ReactNode {
  if (!label) return <span className="key">{name}</span>;
  return (
    <span>
      {label} <span className="key small">{name}</span>
    </span>
  );
}
