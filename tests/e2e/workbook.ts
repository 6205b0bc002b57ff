import { crc32, inflateRawSync } from "node:zlib";

/** A workbook of one sheet as a file, made by hand: nothing of the program under test has a part in it. */
export function workbook(rows: (string | number)[][]): Buffer {
  const main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
  const rel =
    "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  const pack = "http://schemas.openxmlformats.org/package/2006";
  const text = (s: string) => s.replace(/&/g, "&amp;").replace(/</g, "&lt;");
  const cell = (v: string | number) =>
    typeof v === "number"
      ? `<c><v>${v}</v></c>`
      : `<c t="inlineStr"><is><t>${text(v)}</t></is></c>`;
  const sheet = rows
    .map((row) => `<row>${row.map(cell).join("")}</row>`)
    .join("");
  return zip({
    "[Content_Types].xml": `<Types xmlns="${pack}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>`,
    "_rels/.rels": `<Relationships xmlns="${pack}/relationships"><Relationship Id="r1" Type="${rel}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    "xl/workbook.xml": `<workbook xmlns="${main}" xmlns:r="${rel}"><sheets><sheet name="Rooms" sheetId="1" r:id="r1"/></sheets></workbook>`,
    "xl/_rels/workbook.xml.rels": `<Relationships xmlns="${pack}/relationships"><Relationship Id="r1" Type="${rel}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    "xl/worksheets/sheet1.xml": `<worksheet xmlns="${main}"><sheetData>${sheet}</sheetData></worksheet>`,
  });
}

/** An archive whose parts are stored as they are. */
function zip(parts: Record<string, string>): Buffer {
  const bodies: Buffer[] = [];
  const directory: Buffer[] = [];
  let at = 0;
  for (const [name, content] of Object.entries(parts)) {
    const [path, data] = [Buffer.from(name), Buffer.from(content)];
    const common = Buffer.alloc(26);
    common.writeUInt16LE(20, 0);
    common.writeUInt32LE(crc32(data), 10);
    common.writeUInt32LE(data.length, 14);
    common.writeUInt32LE(data.length, 18);
    common.writeUInt16LE(path.length, 22);
    const local = Buffer.concat([
      Buffer.from([0x50, 0x4b, 3, 4]),
      common,
      path,
      data,
    ]);
    const tail = Buffer.alloc(14);
    tail.writeUInt32LE(at, 10);
    directory.push(
      Buffer.concat([
        Buffer.from([0x50, 0x4b, 1, 2, 20, 0]),
        common,
        tail,
        path,
      ]),
    );
    bodies.push(local);
    at += local.length;
  }
  const listing = Buffer.concat(directory);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(bodies.length, 8);
  end.writeUInt16LE(bodies.length, 10);
  end.writeUInt32LE(listing.length, 12);
  end.writeUInt32LE(at, 16);
  return Buffer.concat([...bodies, listing, end]);
}

/** The sheets of a workbook that the program wrote, as they stand in the file. */
export function sheets(file: Buffer): string[] {
  const found: string[] = [];
  // The directory stands at the end; the last record says where.
  const end = file.lastIndexOf(Buffer.from([0x50, 0x4b, 5, 6]));
  let at = file.readUInt32LE(end + 16);
  for (let n = file.readUInt16LE(end + 10); n > 0; n--) {
    const [name, extra, note] = [28, 30, 32].map((o) =>
      file.readUInt16LE(at + o),
    ) as [number, number, number];
    const path = file.subarray(at + 46, at + 46 + name).toString();
    const number = /^\/?xl\/worksheets\/sheet(\d*)\.xml$/.exec(path);
    if (number) {
      const local = file.readUInt32LE(at + 42);
      const from =
        local +
        30 +
        file.readUInt16LE(local + 26) +
        file.readUInt16LE(local + 28);
      const data = file.subarray(from, from + file.readUInt32LE(at + 20));
      found[Number(number[1] || 1) - 1] = (
        file.readUInt16LE(at + 10) === 8 ? inflateRawSync(data) : data
      ).toString();
    }
    at += 46 + name + extra + note;
  }
  return found;
}
