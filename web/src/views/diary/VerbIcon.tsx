/** The tag of a thing, as what becomes of it: partly filled used, leaving sent home, cracked broke, dashed ran out. */
export function VerbIcon({ verb, size = 40 }: { verb: string; size?: number }) {
  const outline = 'M8 8h20v16H8l-5-5v-6z'
  return (
    <svg
      width={size}
      height={size * 0.8}
      viewBox="0 0 40 32"
      fill="none"
      stroke="currentColor"
      strokeWidth={2.4}
      strokeLinejoin="round"
      aria-hidden="true"
    >
      {verb === 'used' && (
        <>
          <path d={outline} />
          <path d="M4 17h24v7H8l-4-4z" fill="currentColor" stroke="none" />
        </>
      )}
      {verb === 'sent_home' && (
        <>
          <path d="M24 8H8l-5 5v6l5 5h16" />
          <path d="M16 16h20m-6-6l6 6-6 6" />
        </>
      )}
      {verb === 'broke' && (
        <>
          <path d="M14 8H8l-5 5v6l5 5h6l3-4-4-4 4-4z" />
          <path d="M20 8h8v16h-8l3-4-4-4 4-4z" />
        </>
      )}
      {verb === 'ran_out' && <path d={outline} strokeDasharray="4 4" />}
    </svg>
  )
}
