// The stock JavaScript client of the tus protocol, driven through a line that is cut again and again.
const fs = require("fs");
const net = require("net");

const asked = JSON.parse(fs.readFileSync(0, "utf8"));
const { Upload } = require(asked.modules + "/tus-js-client");
let cuts = 0;

const line = net.createServer((near) => {
  const far = net.connect(asked.port, "127.0.0.1");
  let passed = 0;
  near.on("data", (part) => {
    passed += part.length;
    far.write(part);
    if (passed > asked.after && cuts < asked.cuts) {
      cuts += 1;
      near.destroy();
      far.end();
    }
  });
  far.on("data", (part) => near.writable && near.write(part));
  near.on("end", () => far.end());
  far.on("end", () => near.end());
  for (const end of [near, far]) end.on("error", () => undefined);
});

line.listen(0, "127.0.0.1", () => {
  const offsets = [];
  const upload = new Upload(Buffer.from(asked.data, "base64"), {
    endpoint: `http://127.0.0.1:${line.address().port}/api/uploads`,
    retryDelays: Array(asked.cuts + 5).fill(100),
    metadata: asked.metadata,
    headers: asked.headers,
    onBeforeRequest: (request) => {
      const at = request.getHeader("Upload-Offset");
      if (request.getMethod() === "PATCH") offsets.push(Number(at));
    },
    onError: (error) => {
      console.error(String(error));
      process.exit(1);
    },
    onSuccess: () => {
      console.log(JSON.stringify({ cuts, offsets, address: upload.url }));
      process.exit(0);
    },
  });
  upload.start();
});
