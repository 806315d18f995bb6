import { useEffect, type ReactNode } from 'react';

const PRODUCT = 'Water Clock';

/** Names the tab after the page, the part of it that is shown first: `Fennimore house · Programs · Water Clock`. */
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
  /** The name of the page, in the tab, too. */
  readonly title: string;
  /** In place of the name, where the heading holds more. */
  readonly children?: ReactNode;
}

/** The heading of a page. */
export function PageHeading({ title, children }: Props) {
  usePageTitle(title);
  return <h1>{children ?? title}</h1>;
}
