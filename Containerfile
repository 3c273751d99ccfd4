FROM node:20-slim
WORKDIR /opt/dripline
COPY package.json package-lock.json ./
RUN npm ci
COPY . .
RUN npx vite build && npx vite build -c vite.server.config.ts
ENV DATA_DIR=/data APP_DIR=/opt/dripline/dist/app
VOLUME /data
# The server listens on its own loopback: share the network with the proxy (podman run --network host, or a pod).
CMD ["node", "dist/server/main.js"]
