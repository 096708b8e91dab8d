import '@/ui/brief/card.css';

/** Print views: no rail, no strip, black on white in every theme. */
export default function PrintLayout({ children }: { children: React.ReactNode }) {
  return children;
}
