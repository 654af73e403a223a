export * from './coupon-photo.js';
export * from './decoded.js';
export { photographTray, TRAY_FAULTS, type TrayFault, type TrayShot } from './tray-photo.js';
