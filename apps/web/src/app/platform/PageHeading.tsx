import { useEffect, type ReactNode } from 'react';

const PRODUCT = 'Water Clock';

/** Names the tab, page part first: `Fennimore house · Programs · Water Clock`. */
export function usePageTitle(...parts: readonly string[]): void {
  const title = [...parts, PRODUCT].join(' · ');
  useEffect(() => {
    document.title = title;
    return () => {
      document.title = PRODUCT;
    };
  }, [title]);
}

interface Props {
  /** The name of the page, also in the tab. */
  readonly title: string;
  /** Content in place of the name, if there is more than text. */
  readonly children?: ReactNode;
}

/** The heading of a page. */
export function PageHeading({ title, children }: Props) {
  usePageTitle(title);
  return <h1>{children ?? title}</h1>;
}
