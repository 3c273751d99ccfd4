FROM node:20-slim
WORKDIR /opt/dripline
COPY package.json package-lock.json ./
RUN npm ci
COPY . .
RUN npx vite build && npx vite build -c vite.server.config.ts
ENV DATA_DIR=/data APP_DIR=/opt/dripline/dist/app HOST=0.0.0.0
VOLUME /data
# It wants DRIPLINE_PASSWORD and PUBLIC_URL (docs/running.md).
CMD ["node", "dist/server/main.js"]
