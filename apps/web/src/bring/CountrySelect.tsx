import { useMemo } from 'react'
import { SelectField } from '../kit/Field'
import { countryName } from '../words/format'

/** Every country that has a calling code, by ISO 3166-1 alpha-2. */
const CODES =
  'AC AD AE AF AG AI AL AM AO AR AS AT AU AW AX AZ BA BB BD BE BF BG BH BI BJ BL BM BN BO BQ BR BS BT BW BY BZ CA CC CD CF CG CH CI CK CL CM CN CO CR CU CV CW CX CY CZ DE DJ DK DM DO DZ EC EE EG EH ER ES ET FI FJ FK FM FO FR GA GB GD GE GF GG GH GI GL GM GN GP GQ GR GT GU GW GY HK HN HR HT HU ID IE IL IM IN IO IQ IR IS IT JE JM JO JP KE KG KH KI KM KN KP KR KW KY KZ LA LB LC LI LK LR LS LT LU LV LY MA MC MD ME MF MG MH MK ML MM MN MO MP MQ MR MS MT MU MV MW MX MY MZ NA NC NE NF NG NI NL NO NP NR NU NZ OM PA PE PF PG PH PK PL PM PR PS PT PW PY QA RE RO RS RU RW SA SB SC SD SE SG SH SI SJ SK SL SM SN SO SR SS ST SV SX SY SZ TC TD TG TH TJ TK TL TM TN TO TR TT TV TW TZ UA UG US UY UZ VA VC VE VG VI VN VU WF WS XK YE YT ZA ZM ZW'.split(
    ' ',
  )

export function CountrySelect({
  value,
  onChange,
  hint,
  label = 'Default country',
  none = 'none',
}: {
  value: string | null
  onChange: (country: string | null) => void
  hint?: string
  label?: string
  /** What stands for no country. */
  none?: string
}) {
  const named = useMemo(
    () => CODES.map((code) => [code, countryName(code)] as const).sort((a, b) => a[1].localeCompare(b[1])),
    [],
  )
  return (
    <SelectField
      label={label}
      hint={hint}
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value || null)}
    >
      <option value="">{none}</option>
      {named.map(([code, name]) => (
        <option key={code} value={code}>
          {name}
        </option>
      ))}
    </SelectField>
  )
}
