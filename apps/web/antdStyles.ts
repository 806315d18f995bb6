import fs from 'node:fs';
import path from 'node:path';
import { createElement, type ReactNode } from 'react';
import { extractStyle } from '@ant-design/static-style-extract';
import * as antd from 'antd';
import type { Plugin } from 'vite';

const SRC = path.join(import.meta.dirname, 'src');
/** Components drawn inside other components of the library. */
const WITHIN = ['Spin', 'Pagination'];

/** Components that the interface imports by name. */
function usedComponents(): string[] {
  const names = fs
    .readdirSync(SRC, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.tsx'))
    .flatMap((file) => [
      ...fs
        .readFileSync(path.join(SRC, file), 'utf8')
        .matchAll(/^import \{([^}]*)\} from 'antd';$/gm),
    ])
    .flatMap(([, list = '']) => list.split(','))
    .map((name) => name.trim());
  return [...new Set([...names, ...WITHIN])].filter((name) => name in antd).sort();
}

/**
 * `import 'virtual:antd.css'`: the styles of all components in use, extracted at build time, because generating them in the browser delays
 * the first paint. They use custom properties, so one sheet serves every theme.
 */
export function antdStyles(): Plugin {
  const id = '/__antd.css';
  return {
    name: 'antd-styles',
    resolveId: (source) => (source === 'virtual:antd.css' ? id : undefined),
    load: (loaded) =>
      loaded === id
        ? extractStyle({
            includes: usedComponents(),
            customTheme: (node: ReactNode) =>
              createElement(antd.ConfigProvider, { theme: { hashed: false } }, node),
          })
        : undefined,
  };
}
