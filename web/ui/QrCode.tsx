import { create } from "qrcode";

/** A text as a QR code, dark on light in every theme, with the quiet border scanners need. */
export function QrCode({ text, label }: { text: string; label: string }) {
  const { modules } = create(text, { errorCorrectionLevel: "M" });
  const { size, data } = modules;
  const quiet = 4;
  const dots = Array.from(data, (dot, i) =>
    dot === 0 ? "" : `M${(i % size) + quiet} ${Math.floor(i / size) + quiet}h1v1h-1z`,
  );
  const side = size + 2 * quiet;
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`0 0 ${side} ${side}`}
      className="w-56 max-w-full"
      shapeRendering="crispEdges"
    >
      <rect width={side} height={side} fill="#fff" />
      <path d={dots.join("")} fill="#000" />
    </svg>
  );
}
