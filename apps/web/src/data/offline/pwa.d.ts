/** Virtual module of `vite-plugin-pwa`. */
declare module 'virtual:pwa-register' {
  export function registerSW(options: {
    readonly onNeedRefresh?: () => void;
  }): (reload?: boolean) => Promise<void>;
}
