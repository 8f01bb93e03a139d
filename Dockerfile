# Pelrin in a container, beside a PostgreSQL of its own (compose.yaml). From locked versions, as nobody in particular.
FROM node:20-bookworm-slim
WORKDIR /opt/pelrin
COPY package.json package-lock.json ./
COPY core/package.json core/
COPY contract/package.json contract/
COPY drawn/package.json drawn/
COPY server/package.json server/
COPY standins/package.json standins/
COPY web/package.json web/
COPY e2e/package.json e2e/
RUN npm ci --ignore-scripts --no-audit --no-fund
COPY . .
# Built and compiled once, here: what serves and is served is part of the image.
RUN node --import tsx scripts/buildWebNow.ts \
  && node -e "import('/opt/pelrin/scripts/compile.mjs').then(({ compile }) => compile('/opt/pelrin'))" \
  && mkdir -p /var/lib/pelrin && chown node:node /var/lib/pelrin
USER node
EXPOSE 7340
VOLUME /var/lib/pelrin
STOPSIGNAL SIGINT
HEALTHCHECK --interval=30s --timeout=5s --start-period=60s \
  CMD node -e "fetch('http://127.0.0.1:7340/health/ready').then((answer) => process.exit(answer.ok ? 0 : 1), () => process.exit(1))"
CMD ["node", "scripts/start.mjs", "--host", "0.0.0.0", "--no-demo", "--data", "/var/lib/pelrin"]
