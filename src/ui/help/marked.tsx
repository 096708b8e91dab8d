/** Text in which words between asterisks are words of the screen. */
export function Marked({ text }: { text: string }) {
  return text.split('*').map((part, i) => (i % 2 === 1 ? <b key={i}>{part}</b> : part));
}
