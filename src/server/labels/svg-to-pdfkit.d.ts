/** Draws an SVG into a PDFKit document; the package ships no types. */
declare module 'svg-to-pdfkit' {
  export default function SVGtoPDF(
    document: PDFKit.PDFDocument,
    svg: string,
    x: number,
    y: number,
    options?: {
      width?: number;
      height?: number;
      preserveAspectRatio?: string;
      warningCallback?: (text: string) => void;
    },
  ): void;
}
