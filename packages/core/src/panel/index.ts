export { colourBits, driverCount, pictureLink, pixelClock, type PictureLink } from './link.ts';
export { adviseMask, MaskPlanner, mostLines, type MaskAdvice, type MaskTrial } from './mask.ts';
