/** @type {import("next").NextConfig} */
const config = {
  reactStrictMode: true,
  poweredByHeader: false,
  // These read their own files at run time, so the bundler must leave them alone.
  serverExternalPackages: ["@electric-sql/pglite", "pdfkit", "sharp", "pg", "fs-native-extensions", "argon2"],
  experimental: {
    optimizePackageImports: [
      "lucide-react",
      "@headlessui/react",
      "date-fns",
      "d3-array",
      "d3-axis",
      "d3-scale",
      "d3-selection",
      "d3-shape",
    ],
  },
};

export default config;
