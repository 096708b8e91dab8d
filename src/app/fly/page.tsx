import { Cockpit } from '@/ui/fly/cockpit';

export const dynamic = 'force-static';

export default function FlyPage() {
  return <Cockpit />;
}
