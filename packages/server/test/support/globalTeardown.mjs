export default function globalTeardown() {
  globalThis.__veglia_cluster?.remove();
}
