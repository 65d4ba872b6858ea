/** The brand ring: grains of salt in a circle. */
export function Ring({ size = 22 }: { readonly size?: number }) {
  const grains = Array.from({ length: 10 }, (_, index) => {
    const angle = (index / 10) * 2 * Math.PI;
    return { x: 12 + 8.8 * Math.sin(angle), y: 12 - 8.8 * Math.cos(angle), r: index % 2 === 0 ? 1.9 : 1.3 };
  });
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="text-iodine">
      {grains.map(({ x, y, r }) => (
        <circle key={`${x} ${y}`} cx={x.toFixed(2)} cy={y.toFixed(2)} r={r} fill="currentColor" />
      ))}
    </svg>
  );
}
