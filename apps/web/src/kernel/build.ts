declare const __TEMPERA_BUILD__: string;

/** Which build of the app this is: what a device has kept of another one may have another shape. */
export const build: string = __TEMPERA_BUILD__;
