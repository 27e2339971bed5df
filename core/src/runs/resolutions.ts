export const STANDARD_RESOLUTIONS = ['1920x1080', '2560x1440', '3840x2160'] as const;
