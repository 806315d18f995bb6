# Water Clock as an image: the built server and application, run by a user without rights. docs/operations.md has the settings.
FROM node:20-bookworm-slim AS build
WORKDIR /srv/water-clock
COPY package.json package-lock.json tsconfig.base.json ./
COPY scripts scripts
COPY packages packages
COPY apps apps
RUN npm ci --no-audit --no-fund && npm run build && npm prune --omit=dev

FROM node:20-bookworm-slim
ENV NODE_ENV=production
ENV HOST=0.0.0.0
ENV PORT=8420
ENV WATER_CLOCK_WEB_ROOT=/srv/water-clock/apps/web/dist
WORKDIR /srv/water-clock
COPY --from=build --chown=root:root /srv/water-clock ./
USER node
EXPOSE 8420
STOPSIGNAL SIGTERM
HEALTHCHECK --interval=10s --timeout=3s --retries=3 \
  CMD ["node", "-e", "fetch('http://127.0.0.1:' + process.env.PORT + '/api/health/live').then(({ ok }) => process.exit(ok ? 0 : 1), () => process.exit(1))"]
CMD ["node", "apps/server/dist/main.js"]
