/** A QR symbol with its quiet zone of four modules; dark on light in both themes, as readers want it. */
export function QrCode({
    path,
    size,
    label,
    className = '',
}: {
    path: string;
    size: number;
    label: string;
    className?: string;
}) {
    return (
        <svg
            role="img"
            aria-label={label}
            viewBox={`-4 -4 ${size + 8} ${size + 8}`}
            className={className}
            shapeRendering="crispEdges"
        >
            <rect x="-4" y="-4" width={size + 8} height={size + 8} fill="#fff" />
            <path d={path} fill="#000" />
        </svg>
    );
}
