import { isIP } from "node:net";
import { encode } from "uqr";
import { dayText } from "../text/clock";
import { shopZone } from "../text/shopZone.server";
import { fingerprintOf, shopAuthority } from "./authority.server";
import { pairedDevices } from "./devices.server";
import { networkDoor } from "./networkDoor.server";
import { pairingCode } from "./pairingCode.server";

/** A picture for a phone's camera: its dark squares as one path, and its size in squares. */
export interface ScannedPicture {
  readonly path: string;
  readonly size: number;
}

/** An address as a QR code (ISO/IEC 18004). */
export function scannedPicture(address: string): ScannedPicture {
  const { data, size } = encode(address, { ecc: "M", border: 4 });
  const squares = data.flatMap((row, y) => row.flatMap((dark, x) => (dark ? [`M${x} ${y}h1v1h-1z`] : [])));
  return { path: squares.join(""), size };
}

/** What the page of phones and tablets shows. */
export async function phonesView(now = new Date()) {
  const door = networkDoor();
  const addresses = door?.addresses ?? [];
  const [first] = addresses;
  const byNumber = addresses.find((address) => isIP(new URL(address).hostname) !== 0);
  const code = first ? pairingCode(now.getTime()) : null;
  const authority = first && !door?.hasOwnCertificate ? await shopAuthority() : null;
  const fingerprint = authority && fingerprintOf(authority.cert);
  const zone = shopZone();
  const pictureOf = (address: string, own: string): ScannedPicture =>
    scannedPicture(
      `${address}pair?code=${own}${fingerprint ? `&authority=${fingerprint.replaceAll(":", "")}` : ""}`,
    );
  return {
    isOpen: door?.isOpen ?? false,
    addresses,
    code: code && {
      code: code.code,
      minutes: Math.ceil((code.endsAt - now.getTime()) / 60_000),
      picture: pictureOf(first ?? "", code.code),
      /** The same by this computer's address, for a device that does not find it by its name. */
      byNumber: byNumber && byNumber !== first ? pictureOf(byNumber, code.code) : null,
    },
    fingerprint,
    devices: pairedDevices().map(({ id, name, pairedAt, seenAt }) => ({
      id,
      name,
      paired: dayText(new Date(pairedAt), zone),
      seen: dayText(new Date(seenAt), zone),
    })),
  };
}

export type PhonesData = Awaited<ReturnType<typeof phonesView>>;
