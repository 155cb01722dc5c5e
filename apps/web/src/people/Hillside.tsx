/** The terraces of the mark, large and faint, behind the door. */
export const Hillside = () => (
  <svg
    viewBox="0 0 1280 800"
    preserveAspectRatio="xMidYMax slice"
    className="absolute inset-0 size-full"
    aria-hidden="true"
  >
    {[0, 44, 88, 132, 176, 220, 264].map((by, i) => (
      <path
        key={by}
        d={`M0 ${430 + by}H200C240 ${430 + by} 240 ${380 + by} 280 ${380 + by}H470C510 ${380 + by} 510 ${470 + by} 550 ${470 + by}H780C820 ${470 + by} 820 ${420 + by} 860 ${420 + by}H1060C1100 ${420 + by} 1100 ${360 + by} 1140 ${360 + by}H1280V800H0Z`}
        fill={i === 0 ? 'var(--hill)' : 'none'}
        stroke="var(--contour)"
        strokeWidth={i === 0 ? 2.5 : 1}
      />
    ))}
  </svg>
)
