export { type FontFolder, fontFolder } from './fonts';
export { type PdfOptions, writePdf } from './pdf/pdf';
export { type PngOptions, writePng } from './png/png';
export { type SvgOptions, writeSvg } from './svg/svg';
