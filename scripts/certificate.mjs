/** The certificate of a shop on the network: the shop's own files, or one that is made at the first start and kept in the data folder. */

import { X509Certificate } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { generate } from "selfsigned";

/** Tablets refuse certificates that are valid for longer than 825 days. A new one is made when this one has ended. */
const DAYS = 820;

/**
 * @param addresses names and IP addresses under which the shop is reached.
 * @returns `{ cert, key, fingerprint }`, PEM texts and the SHA-256 of the certificate.
 */
export async function certificateFor(addresses) {
  const { SCUTUM_TLS_CERT: certFile, SCUTUM_TLS_KEY: keyFile, SCUTUM_DATA: data = "data" } = process.env;
  if (certFile || keyFile) {
    if (!certFile || !keyFile) throw new Error("scutum: SCUTUM_TLS_CERT and SCUTUM_TLS_KEY are wanted together.");
    return withFingerprint(readFileSync(certFile, "utf8"), readFileSync(keyFile, "utf8"));
  }
  const folder = join(data, "tls");
  const [cert, key] = [join(folder, "cert.pem"), join(folder, "key.pem")];
  if (existsSync(cert) && existsSync(key) && covers(readFileSync(cert, "utf8"), addresses))
    return withFingerprint(readFileSync(cert, "utf8"), readFileSync(key, "utf8"));
  const altNames = [{ type: 2, value: "localhost" }, ...["127.0.0.1", ...addresses].map((ip) => ({ type: 7, ip }))];
  const notAfterDate = new Date(Date.now() + DAYS * 86400_000);
  const made = await generate([{ name: "commonName", value: "Scutum" }], {
    keySize: 2048,
    algorithm: "sha256",
    notAfterDate,
    extensions: [{ name: "subjectAltName", altNames }],
  });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  writeFileSync(cert, made.cert);
  writeFileSync(key, made.private, { mode: 0o600 });
  chmodSync(key, 0o600);
  return withFingerprint(made.cert, made.private);
}

/** Whether a certificate still stands for every address: a machine may have been given another one. */
function covers(pem, addresses) {
  const certificate = new X509Certificate(pem);
  return Date.parse(certificate.validTo) > Date.now() && addresses.every((a) => certificate.checkIP(a) ?? certificate.checkHost(a));
}

const withFingerprint = (cert, key) => ({ cert, key, fingerprint: new X509Certificate(cert).fingerprint256 });
