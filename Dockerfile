# The server for production. `compose.yaml` puts MariaDB and Redis beside it; docs/operating.md tells of the settings.
FROM node:20-bookworm-slim
RUN apt-get update \
  && apt-get install -y --no-install-recommends mariadb-server-core mariadb-client fonts-noto-core fonts-noto-cjk \
  && rm -rf /var/lib/apt/lists/*
WORKDIR /vennet
COPY . .
RUN npm install --no-save --no-audit --no-fund --loglevel=error && node launch/build.mjs && chown -R node:node .
USER node
ENV HOST=0.0.0.0 PORT=4600
EXPOSE 4600
HEALTHCHECK --interval=30s --timeout=5s CMD ["node", "-e", "fetch('http://127.0.0.1:4600/api/health').then((a) => process.exit(a.ok ? 0 : 1), () => process.exit(1))"]
CMD ["npm", "run", "serve"]
