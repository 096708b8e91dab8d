import ReactMarkdown from 'react-markdown';
import remarkGfm from 'remark-gfm';
import { Link } from '../shared/link';

/**
 * A page of the guide as it lies in `docs/`: its links lead to the pages that are served here, what leads elsewhere in the
 * source is text, and its pictures come from the server.
 */
export function GuideText({ text, pages }: { text: string; pages: readonly string[] }) {
  return (
    <article className="prose">
      <ReactMarkdown
        remarkPlugins={[remarkGfm]}
        components={{
          a: ({ href = '', children }) => {
            const name = /(\w+)\.md$/.exec(href)?.[1] ?? '';
            if (pages.includes(name)) return <Link href={`/help/${name}`}>{children}</Link>;
            return <>{children}</>;
          },
          // eslint-disable-next-line @next/next/no-img-element -- a file of the documentation, drawn as it is
          img: ({ src, alt }) => <img src={pictureOf(src)} alt={alt ?? ''} loading="lazy" />,
          table: ({ children }) => (
            <div className="scroll-x">
              <table className="plain">{children}</table>
            </div>
          ),
        }}
      >
        {text}
      </ReactMarkdown>
    </article>
  );
}
const pictureOf = (src: unknown): string => `/api/guide/${typeof src === 'string' ? (src.split('/').pop() ?? '') : ''}`;
