import { shopAuthority } from "../network/authority.server";

/** The certificate of the shop's authority, for a phone to trust. */
export async function loader() {
  const { cert } = await shopAuthority();
  return new Response(cert, {
    headers: {
      "Content-Type": "application/x-x509-ca-cert",
      "Content-Disposition": 'attachment; filename="airway-authority.crt"',
    },
  });
}
