# Manege as an image: docker build -t manege . (--build-arg BASE=/manege for a path), docker run --read-only -p 3000:3000 manege
FROM node:20-bookworm-slim AS made
ARG BASE=
WORKDIR /made
COPY . .
RUN MANEGE_BASE=$BASE scripts/package /manege

FROM node:20-bookworm-slim
ARG BASE=
ENV NODE_ENV=production PORT=3000 HOSTNAME=0.0.0.0 MANEGE_BASE=$BASE
COPY --from=made /manege /manege
WORKDIR /manege
# Nothing is written: it runs from a file system that is read only.
USER node
EXPOSE 3000
HEALTHCHECK CMD node -e "fetch('http://127.0.0.1:' + process.env.PORT + process.env.MANEGE_BASE + '/health').then((a) => process.exit(a.ok ? 0 : 1), () => process.exit(1))"
CMD ["node", "server.js"]
