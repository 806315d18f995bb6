import { StreamableFile } from '@nestjs/common';
import contentDisposition from 'content-disposition';

/** A download with any file name; slashes become hyphens. */
export const fileOf = (
  content: string | Buffer,
  type: string,
  name: string,
  disposition: 'attachment' | 'inline' = 'attachment',
): StreamableFile => {
  const bytes = typeof content === 'string' ? Buffer.from(content) : content;
  return new StreamableFile(bytes, {
    type: type.startsWith('text/') ? `${type}; charset=utf-8` : type,
    disposition: contentDisposition(name.replaceAll(/[/\\]/g, '-'), { type: disposition }),
    length: bytes.length,
  });
};
