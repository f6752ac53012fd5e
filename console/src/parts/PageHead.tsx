/** The head of a page: its name, what it is, and what can be done. */
export function PageHead(props: {
  title: React.ReactNode;
  about?: React.ReactNode;
  children?: React.ReactNode;
}): React.ReactNode {
  return (
    <div className="page-head">
      <h1>{props.title}</h1>
      {props.children}
      {props.about && <p>{props.about}</p>}
    </div>
  );
}
