/** How one line of a menu looks, wherever it opens. */
export const menuItem = 'cursor-pointer px-4 py-1.5 text-sm outline-none data-[highlighted]:bg-tint';
