import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A link inside the application. Never fetched ahead: every page reads data when it is asked for and none is streamed
 * (decision 11), so asking ahead brought no page closer and cost one view of the board sixty requests.
 */
export function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />;
}
