// Whether a path is a directory or lies anywhere below it, by segments: "/b" does not hold "/bX".
export const isWithin = (path, directory) =>
    path !== undefined && (path === directory || path.startsWith(`${directory}/`));
