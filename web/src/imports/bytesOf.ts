/** The bytes of a file in base64, as the server takes them: it tells UTF-8, UTF-16 and older code pages apart. */
export async function bytesOf(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let binary = "";
  for (let i = 0; i < bytes.length; i += CHUNK) binary += String.fromCharCode(...bytes.subarray(i, i + CHUNK));
  return btoa(binary);
}

const CHUNK = 0x8000;
