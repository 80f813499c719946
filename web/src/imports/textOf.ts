/** The text of a file: UTF-8 where it is that, else the usual code page of older spreadsheets; a workbook as base64. */
export async function textOf(file: File): Promise<string> {
  const bytes = await file.arrayBuffer();
  if (/\.xls[xm]$/i.test(file.name)) return base64(new Uint8Array(bytes));
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

const CHUNK = 0x8000;

function base64(bytes: Uint8Array): string {
  let binary = "";
  for (let i = 0; i < bytes.length; i += CHUNK) binary += String.fromCharCode(...bytes.subarray(i, i + CHUNK));
  return btoa(binary);
}
