/** What was refused after a tap, beside what was tapped; nothing while nothing was. */
export function Refusal({ said }: { said: string }) {
  return said ? (
    <span role="alert" className="small v-outside">
      {said}
    </span>
  ) : null;
}
