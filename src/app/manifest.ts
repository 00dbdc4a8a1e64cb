import type { MetadataRoute } from "next";

/** What a device shows of Scutum when it is installed there as an application. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    id: "/",
    name: "Scutum",
    short_name: "Scutum",
    description: "A bench companion for tube amplifier technicians",
    start_url: "/",
    display: "standalone",
    background_color: "#19211e",
    theme_color: "#19211e",
    icons: [
      { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
      { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
      // Drawn to the edge: the device cuts it to its own shape.
      { src: "/icon-maskable.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
    ],
  };
}
