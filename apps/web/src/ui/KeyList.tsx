/** Keys with what they do. */
export function KeyList({ id, keys }: { id?: string; keys: readonly (readonly [key: string, what: string])[] }) {
  return (
    <dl id={id} className="grid grid-cols-[150px_1fr] gap-x-3 gap-y-1">
      {keys.map(([key, what]) => (
        <div key={key} className="contents">
          <dt className="font-semibold">{key}</dt>
          <dd>{what}</dd>
        </div>
      ))}
    </dl>
  );
}
